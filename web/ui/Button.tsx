import type { ComponentProps } from "react";

type Look = "plain" | "strong" | "quiet";

const LOOKS: Record<Look, string> = {
  plain: "border border-quiet/40 bg-film hover:border-ink",
  strong: "bg-ink text-film hover:bg-ink/90",
  quiet: "hover:bg-ink/8",
};

export function Button({ look = "plain", className = "", ...props }: ComponentProps<"button"> & { look?: Look }) {
  return (
    <button
      type="button"
      className={`inline-flex h-9 items-center justify-center gap-2 rounded-full px-4 text-[14px] font-medium whitespace-nowrap transition-colors disabled:cursor-default disabled:opacity-40 ${LOOKS[look]} ${className}`}
      {...props}
    />
  );
}
