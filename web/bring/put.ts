/**
 * Putting what was brought in on the piece.
 */
import { type Box, joinBoxes } from "@mend-joint/core/geometry";
import { type DrawingPart, LIMITS, type Tracing } from "@mend-joint/core/piece";
import { toast } from "sonner";
import { addPart, changePart } from "../bench/parts";
import { useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import type { Chosen } from "../workers/bringing";
import { widthOfOutline } from "./OutlineShelf";

/** How far what is smaller than the lettering reaches into it, mm. */
const OVERLAP = 2;

/** Around all lettering, without what holds it; `null` where there is none, or it has not been measured yet. */
export const letteringBox = (): Box | null => joinBoxes(useBench.getState().examination?.words.map(({ box }) => box) ?? []);

/** One larger than the lettering lies behind it and holds it; a smaller one comes to its right end. */
export function putOnPiece(
  { outline, width, height }: Pick<Chosen, "outline" | "width" | "height">,
  name: string,
  traced: Tracing | null = null,
): void {
  const box = letteringBox();
  const behind = box ? width >= box.maxX - box.minX || height >= 1.5 * (box.maxY - box.minY) : true;
  const middle = box ? { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 } : { x: 0, y: 0 };
  const within = (mm: number) => Math.round(Math.min(LIMITS.coordinate, Math.max(-LIMITS.coordinate, mm)) * 100) / 100;
  const x = behind || !box ? middle.x : box.maxX + width / 2 - OVERLAP;
  const at = { x: within(x), y: within(middle.y) };
  addPart(
    {
      kind: "drawing",
      name,
      outline,
      height: Math.max(0.5, Math.round(height * 1000) / 1000),
      at,
      holder: behind,
      ...(traced && { traced }),
    },
    "drawing",
  );
  const added = usePiece
    .getState()
    .piece?.parts.findLast((part): part is DrawingPart => part.kind === "drawing" && part.outline === outline);
  if (added) useBench.setState({ selection: { solids: [added.id], move: { what: "holder", id: added.id } } });
  toast(
    behind
      ? "It lies behind the lettering and holds it. Drag it where you want it."
      : "It comes to the end of the lettering. Drag it where you want it.",
  );
}

/** How wide a drawing is when it stands upright, mm. */
export function widthOfDrawing({ outline, height }: DrawingPart): number {
  return Math.round((widthOfOutline(outline, height) ?? height) * 100) / 100;
}

/** Another outline in the place of a drawing, which keeps all else. */
export function replaceOutline(
  { id }: DrawingPart,
  { outline, height }: Pick<Chosen, "outline" | "height">,
  name: string,
  traced: Tracing | null,
): void {
  changePart<DrawingPart>(id, (old) => ({
    ...old,
    name,
    outline,
    height: Math.max(0.5, Math.round(height * 1000) / 1000),
    ...(traced && { traced }),
  }));
}
