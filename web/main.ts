import { beginEarly } from "./early";
import { renewWhenOutdated } from "./renew";

renewWhenOutdated();
beginEarly(location.pathname);
// The first screen is on its way together with what it stands in, which tells when it does not come.
if (location.pathname === "/") import("./screens/RackScreen").catch(() => {});
if (location.pathname.startsWith("/bench/")) import("./screens/BenchScreen").catch(() => {});
void import("./app");
