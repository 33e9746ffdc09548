/**
 * Mends that change a drawing: its strokes grow, or all of it.
 */
import type { DrawingPart, Piece } from "../piece";
import { type Attempt, largerBy, round, type Scene, thickerBy } from "./scene";

/** Strokes of a drawing are thickened by this much at most, mm: beyond that it is another drawing. */
const THICKEST = 3;

/** The drawing that is too thin somewhere, whether or not it is what holds the others. */
function drawingOf({ piece, examination, finding, hanging }: Scene): DrawingPart | undefined {
  const thin = hanging.length > 0 ? hanging : examination.solids.filter(({ id }) => finding.parts.includes(id));
  return piece.parts.find(
    (part): part is DrawingPart => part.kind === "drawing" && thin.some(({ partId }) => partId === part.id),
  );
}

const changed = (piece: Piece, id: string, edit: (part: DrawingPart) => DrawingPart): Piece => ({
  ...piece,
  parts: piece.parts.map((part) => (part.kind === "drawing" && part.id === id ? edit(part) : part)),
});

export function thickenDrawing(scene: Scene): Attempt | null {
  const drawing = drawingOf(scene);
  if (!drawing || drawing.frame !== undefined) return null;
  const missing = scene.examination.leastWidth - scene.finding.width;
  return {
    kind: "thicken",
    action: (by) => ({ does: "thicken", by, drawing: drawing.name }),
    least: 0,
    most: THICKEST,
    amounts: thickerBy(missing, THICKEST),
    apply: (now, amount) => changed(now, drawing.id, (old) => ({ ...old, thicken: round(Math.min(10, old.thicken + amount)) })),
  };
}

export function widenFrame(scene: Scene): Attempt | null {
  const drawing = drawingOf(scene);
  if (drawing?.frame === undefined) return null;
  const missing = scene.examination.leastWidth - scene.finding.width;
  return {
    kind: "holder",
    action: (by) => ({ does: "grow", by, part: "frame" }),
    least: 0,
    most: THICKEST,
    amounts: thickerBy(missing, THICKEST),
    apply: (now, amount) => changed(now, drawing.id, (old) => ({ ...old, frame: round((old.frame ?? 0) + amount) })),
  };
}

export function enlargeDrawing(scene: Scene): Attempt | null {
  const drawing = drawingOf(scene);
  if (!drawing || scene.finding.width <= 0) return null;
  return {
    kind: "larger",
    action: () => ({ does: "larger", drawing: drawing.name }),
    least: 0,
    most: 1,
    amounts: largerBy(scene.examination.leastWidth, scene.finding.width),
    apply: (now, amount) =>
      changed(now, drawing.id, (old) => ({ ...old, height: round(Math.min(1000, old.height * (1 + amount))) })),
  };
}
