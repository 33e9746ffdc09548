/**
 * Mends that change a drawing: its strokes grow, or all of it.
 */
import { islandsOf, offset, type Region, regionBox, regionContains, transformPoint, transformRing } from "../geometry";
import { drawnRings } from "../holders";
import type { DrawingPart, Piece } from "../piece";
import { type Attempt, doneOrNot, largerBy, round, type Scene, thickerBy, wantedAt } from "./scene";

/** Strokes of a drawing are thickened by this much at most, mm: beyond that it is another drawing. */
const THICKEST = 3;

/** The drawing that is too thin somewhere, whether or not it is what holds the others. */
function drawingOf({ piece, examination, finding, hanging }: Scene): DrawingPart | undefined {
  const thin = hanging.length > 0 ? hanging : examination.solids.filter(({ id }) => finding.parts.includes(id));
  return piece.parts.find(
    (part): part is DrawingPart => part.kind === "drawing" && thin.some(({ partId }) => partId === part.id),
  );
}

const changeDrawing = (piece: Piece, id: string, edit: (part: DrawingPart) => DrawingPart): Piece => ({
  ...piece,
  parts: piece.parts.map((part) => (part.kind === "drawing" && part.id === id ? edit(part) : part)),
});

export function thickenDrawing(scene: Scene): Attempt | null {
  const drawing = drawingOf(scene);
  if (!drawing || drawing.frame !== undefined) return null;
  const missing = wantedAt(scene.finding, scene.examination) - scene.finding.width;
  return {
    kind: "thicken",
    action: (by) => ({ does: "thicken", by, drawing: drawing.name }),
    least: 0,
    most: THICKEST,
    amounts: thickerBy(missing, THICKEST),
    apply: (now, amount) =>
      changeDrawing(now, drawing.id, (old) => ({ ...old, thicken: round(Math.min(10, old.thicken + amount)) })),
  };
}

export function widenFrame(scene: Scene): Attempt | null {
  const drawing = drawingOf(scene);
  if (drawing?.frame === undefined) return null;
  const missing = wantedAt(scene.finding, scene.examination) - scene.finding.width;
  return {
    kind: "holder",
    action: (by) => ({ does: "grow", by, part: "frame" }),
    least: 0,
    most: THICKEST,
    amounts: thickerBy(missing, THICKEST),
    apply: (now, amount) => changeDrawing(now, drawing.id, (old) => ({ ...old, frame: round((old.frame ?? 0) + amount) })),
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
      changeDrawing(now, drawing.id, (old) => ({ ...old, height: round(Math.min(1000, old.height * (1 + amount))) })),
  };
}

/** Outlines are told to lie in an island when they come this near to it, mm. */
const SAME_PLACE = 0.05;

/** Of a drawing that comes in several pieces, the loose one is left out. */
export function withoutIsland({ piece, examination, finding }: Scene): Attempt | null {
  if (finding.kind !== "island" && finding.kind !== "loose") return null;
  const solid = examination.solids.find(
    ({ id, partId }) =>
      finding.parts.includes(id) && piece.parts.some(({ kind, id: own }) => kind === "drawing" && own === partId),
  );
  const drawing = solid && piece.parts.find((part): part is DrawingPart => part.kind === "drawing" && part.id === solid.partId);
  if (!solid || drawing?.frame !== undefined) return null;
  const island = islandsOf(solid.region).find((each) => regionContains(each, finding.at.x, finding.at.y));
  const left = drawing && island && leftOf(drawing, island, islandsOf(solid.region));
  if (!drawing || !left) return null;
  const without = (now: Piece) => changeDrawing(now, drawing.id, (old) => ({ ...old, ...left }));
  return doneOrNot("leave-out", "leave out", without, [solid.id]);
}

/** A drawing without the outlines of one island; what is left stays where it is. */
function leftOf(
  drawing: DrawingPart,
  island: Region,
  all: readonly Region[],
): Pick<DrawingPart, "outline" | "height" | "at"> | null {
  const rough = drawnRings(drawing);
  if (!rough) return null;
  const { rings, box, placed } = rough;
  const data = drawing.outline.split(/(?=M)/);
  if (all.length < 2 || data.length !== rings.length) return null;
  const grown = offset(island, SAME_PLACE + Math.abs(drawing.thicken) / 2 + drawing.round);
  // The shape lies about the place of the drawing: all its islands together tell where that is on the piece.
  const [here, drawn] = [regionBox(all.flat())!, regionBox(rings.map((ring) => transformRing(ring, placed)))!];
  const [dx, dy] = [(here.minX + here.maxX - drawn.minX - drawn.maxX) / 2, (here.minY + here.maxY - drawn.minY - drawn.maxY) / 2];
  const stays = rings.map((ring) => {
    const { x, y } = transformPoint(placed, { x: ring[0]!, y: ring[1]! });
    return !regionContains(grown, x + dx, y + dy);
  });
  const rest = regionBox(rings.filter((_, i) => stays[i]));
  if (!rest || stays.every(Boolean)) return null;
  const before = transformPoint(placed, { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 });
  const after = transformPoint(placed, { x: (rest.minX + rest.maxX) / 2, y: (rest.minY + rest.maxY) / 2 });
  const exactly = (mm: number) => Math.round(mm * 1e6) / 1e6;
  return {
    outline: data.filter((_, i) => stays[i]).join(""),
    height: exactly((drawing.height * (rest.maxY - rest.minY)) / (box.maxY - box.minY)),
    at: { ...drawing.at, x: exactly(drawing.at.x + after.x - before.x), y: exactly(drawing.at.y + after.y - before.y) },
  };
}
