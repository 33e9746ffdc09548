/**
 * Where a loose piece lies after it has fallen: below its word, clear of what is there, a little turned.
 */
import type { Examination } from "@mend-joint/core";
import { type Box, joinBoxes, regionBox } from "@mend-joint/core/geometry";
import type { CSSProperties } from "react";

export interface Fall {
  /** Shift in mm; dy is negative, since it falls. */
  dx: number;
  dy: number;
  /** Degrees, counter-clockwise. */
  turn: number;
}

/** Air in mm between a fallen piece and what it fell past. */
const AIR = 2.5;
/** Pieces wider than this share of the whole only sink a little: the eye would lose them otherwise. */
const LARGE = 0.4;

/** @returns one for each cutout, `null` for those that hold */
export function fallsOf({ cutouts, box, solids }: Examination): (Fall | null)[] {
  if (!box) return cutouts.map(() => null);
  const standing = cutouts.filter((cutout) => !cutout.falls).flatMap((cutout) => cutout.solids.map((i) => solids[i]!));
  const isStick = (solid: (typeof standing)[number]) => solid.label.kind === "stick";
  const ground = joinBoxes(standing.filter((solid) => !isStick(solid)).map((solid) => regionBox(solid.region)));
  const shafts = standing.filter(isStick).map((solid) => regionBox(solid.region)!);
  const taken: Box[] = [];
  return cutouts.map((cutout, i) => {
    const own = cutout.falls ? regionBox(cutout.region) : null;
    if (!own) return null;
    const [width, height] = [own.maxX - own.minX, own.maxY - own.minY];
    const [x, y] = [(own.minX + own.maxX) / 2, (own.minY + own.maxY) / 2];
    if (width > (box.maxX - box.minX) * LARGE) return { dx: 0, dy: -Math.min(10, 3 + height * 0.15), turn: -4 };
    const to = { x: besideShafts(x, width, shafts), y: Math.min(y - AIR, (ground?.minY ?? own.minY) - AIR - height / 2) };
    while (taken.some((other) => overlap(other, to, width, height))) to.y -= height + AIR;
    taken.push({ minX: to.x - width / 2, maxX: to.x + width / 2, minY: to.y - height / 2, maxY: to.y + height / 2 });
    return { dx: to.x - x, dy: to.y - y, turn: i % 2 === 0 ? -14 : 11 };
  });
}

function besideShafts(x: number, width: number, shafts: readonly Box[]): number {
  for (const { minX, maxX } of shafts) {
    const aside = width / 2 + AIR;
    if (x > minX - aside && x < maxX + aside) return x < (minX + maxX) / 2 ? minX - aside : maxX + aside;
  }
  return x;
}

function overlap(box: Box, at: { x: number; y: number }, width: number, height: number): boolean {
  return (
    at.x + width / 2 > box.minX && at.x - width / 2 < box.maxX && at.y + height / 2 > box.minY && at.y - height / 2 < box.maxY
  );
}

/** As a style: shift and turn about the piece's own middle, in a drawing whose y runs upwards. */
export function fallStyle(fall: Fall): CSSProperties {
  return {
    transform: `translate(${fall.dx}px, ${fall.dy}px) rotate(${fall.turn}deg)`,
    transformBox: "fill-box",
    transformOrigin: "center",
  };
}
