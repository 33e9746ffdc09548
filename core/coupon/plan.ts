/**
 * A coupon: a test piece that tells what a sheet bears on a machine. It fits an offcut of A6.
 *
 * Rows of necks, each with an arm behind it, from narrow to wide: short and long arms, along the coupon and across it. Strips whose
 * slots add up the width of the cut. Holes from small to large. Two arms to be pulled until they break.
 */
import { z } from "zod";
import type { Stock } from "../piece";

/** Necks of a row; as many as there are holes. */
export const NECKS = 10;

/** Outer size, mm: A6 is 148 by 105. */
export const COUPON_SIZE = { width: 144, height: 100 } as const;

export const ROWS = ["long across", "short across", "long along", "short along"] as const;
/** Long or short arms, and where they point: along or across the coupon's long side, along which the grain lies. */
export type Row = (typeof ROWS)[number];

const sizes = z
  .array(z.number().min(0.2).max(6))
  .length(NECKS)
  .refine((all) => all.every((mm, i) => i === 0 || mm > all[i - 1]!), "must grow from one to the next");

/** What differs from one coupon to another; all lengths as drawn, mm. */
export const couponPlanSchema = z.strictObject({
  /** Widths of the necks, the same in each row. */
  necks: sizes,
  /** Diameters of the holes. */
  holes: sizes,
  /** Width of the neck of either arm that is pulled. */
  pulled: z.number().min(1).max(8),
});
export type CouponPlan = z.output<typeof couponPlanSchema>;

/** Necks as the first coupon of a sheet has them: from 0.4 to 4 mm, and in sheets that want more, up to what an arm is wide. */
const first = (leastWidth: number): readonly [number, number] => [0.4, Math.min(5.5, Math.max(4, 1.8 * leastWidth))];
const HOLES = [0.4, 0.5, 0.6, 0.8, 1, 1.2, 1.5, 1.8, 2.2, 3];
/** The pull that should break an arm, N: well within what a luggage scale reads. */
const PULL = 12;

/** So many sizes from one to the other, each by the same share larger than the one before, to a twentieth of a mm. */
export function growing([from, to]: readonly [number, number], count = NECKS): number[] {
  const all: number[] = [];
  for (let i = 0; i < count; i++) {
    const wanted = Math.round(20 * from * (to / from) ** (i / (count - 1))) / 20;
    all.push(Math.max(wanted, i === 0 ? NARROWEST : Number((all[i - 1]! + 0.05).toFixed(2))));
  }
  return all;
}

/** Bounds of necks, mm: what can be cut, and what is still a neck before an arm. */
const NARROWEST = 0.2;
const WIDEST = 5.5;

/** @param between the narrowest and the widest neck, mm; left out, as on a first coupon */
export function planCoupon(
  stock: Pick<Stock, "thickness" | "strength" | "kerf" | "leastWidth">,
  between = first(stock.leastWidth),
): CouponPlan {
  const width = stock.kerf + Math.sqrt((6 * PULL * PULLED.hook) / (stock.strength * stock.thickness));
  const to = Math.min(WIDEST, between[1]);
  // Also where all that tells lies beyond what an arm allows, there are necks to be cut.
  const from = Math.max(NARROWEST, Math.min(between[0], to / 1.5));
  return {
    necks: growing([from, to]),
    holes: [...HOLES],
    pulled: Math.min(6, Math.max(1.5, Math.round(10 * width) / 10)),
  };
}

/** Measures of what stands on every coupon, mm. */
const ARM = {
  /** Width of an arm behind its neck, and from one arm to the next. */
  width: 6,
  pitch: 7.2,
  /** Length of a neck. */
  neck: 2,
  /** From a neck's root to the arm's end. */
  long: 16,
  short: 7,
  /** Room beyond the end of an arm, up to the arm that comes from the other side. */
  room: 2,
} as const;

export const STRIPS = { count: 8, width: 5, height: 18, slot: 1.2, neck: 0.8, root: 1.5, room: 1.5 } as const;

/** Arms at the edge: end of the neck, middle of the hole for the hook, end of the arm, from its root; its width, slot and hole. */
export const PULLED = { neck: 2, hook: 38, end: 43, width: 9, slot: 2, hole: 5 } as const;

/** The windows' lower left corners and the arms' places, mm from the coupon's. */
const PLACES = {
  /** Arms point across: rows run along. */
  across: { x: 46, y: 68 },
  /** Arms point along: rows run upwards. */
  along: { x: 8, y: 19.5 },
  strips: { x: 46, y: 32 },
  holes: { x: 49, y: 25 },
  /** Pitch of the holes. */
  holePitch: 7.2,
  /** Root of the arm along the lower edge, and of the one along the right edge. */
  pullAlong: 30,
  pullAcross: 30,
} as const;

const rowLength = (NECKS - 1) * ARM.pitch + ARM.width + 2 * ARM.room;
const windowDepth = ARM.long + ARM.short + ARM.room;
const stripsLength = STRIPS.count * STRIPS.width + (STRIPS.count + 1) * STRIPS.slot;
const stripsHeight = STRIPS.height + STRIPS.root + STRIPS.room;

export interface PlacedNeck {
  row: Row;
  /** In its row, from 0, narrow to wide. */
  number: number;
  /** As drawn, mm. */
  width: number;
  /** From the neck's root to the end of its arm, mm. */
  lever: number;
  /** Middle of the root, and where the arm points, a unit vector. */
  root: { x: number; y: number };
  direction: { x: number; y: number };
}

const isLong = (row: Row) => row.startsWith("long");
const isAcross = (row: Row) => row.endsWith("across");

/** Every neck in its place, row by row. */
export function neckPlaces({ necks }: Pick<CouponPlan, "necks">): PlacedNeck[] {
  return ROWS.flatMap((row) =>
    necks.map((width, number): PlacedNeck => {
      const along = ARM.room + ARM.width / 2 + number * ARM.pitch;
      const lever = isLong(row) ? ARM.long : ARM.short;
      const across = isLong(row) ? 0 : windowDepth;
      const sign = isLong(row) ? 1 : -1;
      const { x, y } = PLACES[isAcross(row) ? "across" : "along"];
      return isAcross(row)
        ? { row, number, width, lever, root: { x: x + along, y: y + across }, direction: { x: 0, y: sign } }
        : { row, number, width, lever, root: { x: x + across, y: y + along }, direction: { x: sign, y: 0 } };
    }),
  );
}

export const holePlaces = ({ holes }: Pick<CouponPlan, "holes">): { x: number; y: number; diameter: number }[] =>
  holes.map((diameter, i) => ({ x: PLACES.holes.x + i * PLACES.holePitch, y: PLACES.holes.y, diameter }));

/** The coupon's outlines: the outer one first, then windows; holes are apart, as `holePlaces` has them. Lines through corners, mm, y up. */
export function couponRings(plan: CouponPlan): Float64Array[] {
  return [outerRing(plan), ...windows(plan), stripsWindow()].map((corners) => Float64Array.from(corners.flat()));
}

type Corner = [number, number];

/** Along the foot of an arm and round it, seen from its root with the arm pointing up, from left to right. */
function armCorners(middle: number, neck: number, lever: number): Corner[] {
  const [w, a] = [neck / 2, ARM.width / 2];
  return [
    [middle - w, 0],
    [middle - w, ARM.neck],
    [middle - a, ARM.neck],
    [middle - a, lever],
    [middle + a, lever],
    [middle + a, ARM.neck],
    [middle + w, ARM.neck],
    [middle + w, 0],
  ];
}

function windows({ necks }: CouponPlan): Corner[][] {
  const middles = necks.map((_, i) => ARM.room + ARM.width / 2 + i * ARM.pitch);
  const arms = (lever: number) => necks.flatMap((width, i) => armCorners(middles[i]!, width, lever));
  const window: Corner[] = [
    [0, 0],
    ...arms(ARM.long),
    [rowLength, 0],
    [rowLength, windowDepth],
    ...arms(ARM.short)
      .map(([x, y]): Corner => [x, windowDepth - y])
      .reverse(),
    [0, windowDepth],
  ];
  const { across, along } = PLACES;
  return [
    window.map(([x, y]): Corner => [across.x + x, across.y + y]),
    window.map(([x, y]): Corner => [along.x + y, along.y + x]),
  ];
}

/** Strips hang from the upper edge of their window by necks that snap off. */
function stripsWindow(): Corner[] {
  const { x, y } = PLACES.strips;
  const corners: Corner[] = [
    [0, 0],
    [stripsLength, 0],
    [stripsLength, stripsHeight],
  ];
  for (let i = STRIPS.count - 1; i >= 0; i--) {
    const left = STRIPS.slot + i * (STRIPS.width + STRIPS.slot);
    const [right, middle] = [left + STRIPS.width, left + STRIPS.width / 2];
    const top = stripsHeight - STRIPS.root;
    corners.push(
      [middle + STRIPS.neck / 2, stripsHeight],
      [middle + STRIPS.neck / 2, top],
      [right, top],
      [right, top - STRIPS.height],
      [left, top - STRIPS.height],
      [left, top],
      [middle - STRIPS.neck / 2, top],
      [middle - STRIPS.neck / 2, stripsHeight],
    );
  }
  corners.push([0, stripsHeight]);
  return corners.map(([cx, cy]) => [x + cx, y + cy]);
}

/** The middle of an arm that is pulled lies this far inside the edge, mm. */
const pulledMiddle = PULLED.width / 2;

export interface PlacedPull {
  direction: "along" | "across";
  /** Middle of the root, and of the hole for the hook. */
  root: { x: number; y: number };
  hook: { x: number; y: number };
}

export const pullPlaces: readonly PlacedPull[] = [
  {
    direction: "along",
    root: { x: PLACES.pullAlong, y: pulledMiddle },
    hook: { x: PLACES.pullAlong + PULLED.hook, y: pulledMiddle },
  },
  {
    direction: "across",
    root: { x: COUPON_SIZE.width - pulledMiddle, y: PLACES.pullAcross },
    hook: { x: COUPON_SIZE.width - pulledMiddle, y: PLACES.pullAcross + PULLED.hook },
  },
];

/** Lower edge from left to right with its arm, then up the right edge with the other. */
function outerRing({ pulled }: CouponPlan): Corner[] {
  const { width, height } = COUPON_SIZE;
  const [low, high] = [pulledMiddle - pulled / 2, pulledMiddle + pulled / 2];
  // Along an edge that runs to the right with the coupon above it; `y` is how far inside.
  const arm: Corner[] = [
    [0, 0],
    [0, low],
    [PULLED.neck, low],
    [PULLED.neck, 0],
    [PULLED.end, 0],
    [PULLED.end, PULLED.width],
    [PULLED.neck, PULLED.width],
    [PULLED.neck, high],
    [0, high],
    [0, PULLED.width + PULLED.slot],
    [PULLED.end + PULLED.slot, PULLED.width + PULLED.slot],
    [PULLED.end + PULLED.slot, 0],
  ];
  return [
    [0, 0],
    ...arm.map(([x, y]): Corner => [PLACES.pullAlong + x, y]),
    [width, 0],
    ...arm.map(([x, y]): Corner => [width - y, PLACES.pullAcross + x]),
    [width, height],
    [0, height],
  ];
}
