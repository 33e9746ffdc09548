import type { ComponentProps } from "react";
import { Link } from "react-router";

type Look = "plain" | "strong" | "quiet";

const LOOKS: Record<Look, string> = {
  plain: "border border-quiet/40 bg-film hover:border-ink",
  strong: "bg-ink text-film hover:bg-ink/90",
  quiet: "hover:bg-ink/8",
};

const SHAPE =
  "inline-flex h-9 items-center justify-center gap-2 rounded-full px-4 text-[14px] font-medium whitespace-nowrap transition-colors";

export function Button({ look = "plain", className = "", ...props }: ComponentProps<"button"> & { look?: Look }) {
  return (
    <button
      type="button"
      className={`${SHAPE} disabled:cursor-default disabled:opacity-40 ${LOOKS[look]} ${className}`}
      {...props}
    />
  );
}

/** Leads somewhere, and looks like a button. */
export function ButtonLink({ className = "", ...props }: ComponentProps<typeof Link>) {
  return <Link className={`${SHAPE} ${LOOKS.plain} ${className}`} {...props} />;
}
