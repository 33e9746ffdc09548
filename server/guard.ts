/**
 * Only pages served from here may talk to this server: Host against rebinding, Origin against foreign pages.
 */
import { createMiddleware } from "hono/factory";
import { problem } from "./problems";

const LOCAL = new Set(["localhost", "127.0.0.1", "[::1]"]);

/** @param allowedHost the host name that the server was told to listen on */
export function sameOriginOnly(allowedHost: string) {
  const allowed = (host: string) => {
    const name = host.replace(/:\d+$/, "").toLowerCase();
    return LOCAL.has(name) || name === allowedHost.toLowerCase();
  };
  return createMiddleware(async (c, next) => {
    const host = c.req.header("host") ?? "";
    if (!allowed(host)) return problem(c, 403, `This server does not answer to the name "${host.slice(0, 100)}".`);
    const origin = c.req.header("origin");
    if (origin && origin !== "null" && URL.canParse(origin) && new URL(origin).host === host) return next();
    if (origin) return problem(c, 403, "Requests from other pages are not answered.");
    return next();
  });
}
