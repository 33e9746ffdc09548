import type { ReactNode } from "react";

interface Column {
  label: string;
  className?: string;
  children: ReactNode;
}

interface Props {
  left?: Column;
  middle: Omit<Column, "label">;
  right: Column;
  /** Widths of the columns beside the middle, where there is room for three. */
  widths?: "bench" | "cut" | "check";
}

const WIDTHS = {
  bench: "md:grid-cols-[252px_minmax(0,1fr)_236px] xl:grid-cols-[292px_minmax(0,1fr)_276px]",
  cut: "md:grid-cols-[240px_minmax(0,1fr)_260px] xl:grid-cols-[280px_minmax(0,1fr)_300px]",
  check: "md:grid-cols-[minmax(0,1fr)_300px] xl:grid-cols-[minmax(0,1fr)_340px]",
};

/**
 * Making on the left, the piece in the middle, what is found on the right. On a narrow screen the piece comes first, and the others follow
 * below it.
 */
export function ThreeColumns({ left, middle, right, widths = "cut" }: Props) {
  return (
    <div
      className={`flex min-h-0 min-w-0 flex-col overflow-x-hidden overflow-y-auto md:grid md:overflow-visible ${WIDTHS[widths]}`}
    >
      {left && (
        <aside
          aria-label={left.label}
          className={`order-3 shrink-0 border-t border-rule md:order-none md:min-h-0 md:border-t-0 md:border-r ${left.className ?? ""}`}
        >
          {left.children}
        </aside>
      )}
      <main className={`order-1 h-[72dvh] shrink-0 md:order-none md:h-auto md:min-h-0 md:min-w-0 ${middle.className ?? ""}`}>
        {middle.children}
      </main>
      <aside
        aria-label={right.label}
        className={`order-2 shrink-0 border-t border-rule md:order-none md:min-h-0 md:border-t-0 md:border-l ${right.className ?? ""}`}
      >
        {right.children}
      </aside>
    </div>
  );
}
