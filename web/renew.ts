/**
 * A page that was opened before the app was built anew asks for files that are gone. It is loaded again; nothing of the work is lost by
 * that, since changes outlive their page.
 */
const KEY = "mend-joint-renewed";
/** A page that was loaded again so lately (ms) and still lacks a file says so instead. */
const LATELY = 10_000;

export function renewWhenOutdated(): void {
  addEventListener("vite:preloadError", () => {
    if (Date.now() - Number(sessionStorage.getItem(KEY) ?? 0) < LATELY) return;
    // Without the server, loading again would leave nothing.
    fetch("/api/health").then(
      ({ ok }) => {
        if (!ok) return;
        sessionStorage.setItem(KEY, String(Date.now()));
        location.reload();
      },
      () => {},
    );
  });
}
