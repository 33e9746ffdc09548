import { Link, useRouteError } from "react-router";

/** An address that leads nowhere, or a fault nobody foresaw: what happened, what was kept, where to go. */
export function LostScreen() {
  const error = useRouteError() as Error | undefined;
  return (
    <main className="mx-auto flex h-full max-w-md flex-col justify-center gap-3 px-6">
      <h1 className="font-display text-[28px] font-semibold">
        {error ? "Something broke on this screen." : "There is nothing at this address."}
      </h1>
      <p className="text-quiet">
        {error
          ? `Your piece is kept: what was not saved yet waits in this browser. (${error.message})`
          : "The piece may have been deleted."}
      </p>
      <Link to="/" className="font-medium underline underline-offset-4">
        Back to the rack
      </Link>
    </main>
  );
}
