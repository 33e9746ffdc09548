/**
 * A coupon as a piece: it is drawn, checked and cut like any other.
 */
import { type Point, type Region, regionBox, strokeRegion, union } from "../geometry";
import { numberLines, numberWidth } from "../ornaments";
import { type DrawingPart, type Piece, parsePiece, type Stock } from "../piece";
import { type CouponPlan, couponRings, holePlaces, neckPlaces, PULLED, pullPlaces } from "./plan";

/** Height of the numbers, and width of their lines, mm. */
const NUMBER = { height: 2.4, line: 0.35 } as const;
/** From a neck's window, or a hole, to its number, mm. */
const BESIDE = 1.2;

/** @throws PieceError where the sheet cannot be one of a piece */
export function couponPiece(plan: CouponPlan, stock: Stock, name: string): Piece {
  const holes = [...holePlaces(plan), ...pullPlaces.map(({ hook }) => ({ ...hook, diameter: PULLED.hole }))];
  const rings = couponRings(plan);
  const numbers = numbersOf(plan);
  const outline = [...rings.map(lineData), ...holes.map(({ x, y, diameter }) => circleData({ x, y }, diameter / 2))].join("");
  return parsePiece({
    name,
    purpose: "sign",
    stock,
    cut: "on-line",
    // Whatever the width: its necks are there to break.
    accepted: ["thin-stroke", "hairline", "small-hole"].map((kind) => ({
      kind,
      parts: ["coupon"],
      width: 0,
      reason: "on purpose: a test piece",
    })),
    parts: [
      { ...drawn("coupon", "Test piece", outline, rings), holder: true },
      { ...drawn("numbers", "Numbers", numbers.map(lineData).join(""), numbers), meets: "engrave" },
    ],
  });
}

const figure = (mm: number) => String(Number(mm.toFixed(4)));

/** Path data has y downwards. */
function lineData(ring: Float64Array): string {
  let data = "";
  for (let i = 0; i < ring.length; i += 2) data += `${i === 0 ? "M" : "L"}${figure(ring[i]!)} ${figure(-ring[i + 1]!)}`;
  return `${data}Z`;
}

const circleData = ({ x, y }: Point, r: number) =>
  `M${figure(x + r)} ${figure(-y)}A${figure(r)} ${figure(r)} 0 0 1 ${figure(x - r)} ${figure(-y)}A${figure(r)} ${figure(r)} 0 0 1 ${figure(x + r)} ${figure(-y)}Z`;

function drawn(id: string, name: string, outline: string, region: Region): Partial<DrawingPart> {
  const { minX, minY, maxX, maxY } = regionBox(region)!;
  return {
    kind: "drawing",
    id,
    name,
    outline,
    height: maxY - minY,
    at: { x: (minX + maxX) / 2, y: (minY + maxY) / 2 },
  };
}

/** The numbers beside necks and holes, 1 for the narrowest. */
function numbersOf(plan: CouponPlan): Region {
  const lines = [
    ...neckPlaces(plan).flatMap(({ row, number, root }) => {
      const text = String(number + 1);
      const width = numberWidth(text, NUMBER.height);
      if (row === "short across") return numberLines(text, NUMBER.height, { x: root.x - width / 2, y: root.y + BESIDE });
      if (row === "long along")
        return numberLines(text, NUMBER.height, { x: root.x - BESIDE - width, y: root.y - NUMBER.height / 2 });
      return [];
    }),
    ...holePlaces(plan).flatMap(({ x, y }, i) => {
      const text = String(i + 1);
      const width = numberWidth(text, NUMBER.height);
      return numberLines(text, NUMBER.height, { x: x - width / 2, y: y - 2.2 - NUMBER.height - BESIDE });
    }),
  ];
  return union(lines.map((line) => strokeRegion(line, NUMBER.line)));
}
