import type { Point } from "@mend-joint/core/geometry";

interface Props {
  /** Place on the stage, px. */
  at: Point;
  title: string;
  /** What the hand takes by it (see `useHand.ts`). */
  "data-node"?: string;
  "data-end"?: string;
}

/** A point that can be pulled by itself: of a curve, or an end of a tie. */
export function PointHandle({ at, title, ...taken }: Props) {
  return (
    <circle
      {...taken}
      cx={at.x}
      cy={at.y}
      r={7}
      fill="var(--color-film)"
      stroke="var(--color-focus)"
      strokeWidth={2}
      className="cursor-grab active:cursor-grabbing"
    >
      <title>{title}</title>
    </circle>
  );
}
