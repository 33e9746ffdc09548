import {
  COUPON_SIZE,
  type Coupon,
  couponRings,
  holePlaces,
  neckPlaces,
  type PlacedNeck,
  PULLED,
  pullPlaces,
  type Row,
} from "@mend-joint/core/coupon";
import { formatLength, hasGrain } from "@mend-joint/core/piece";
import { rowName } from "@mend-joint/core/wording";
import type { KeyboardEvent } from "react";
import { lookOf, MaterialPattern } from "../stage/materials";
import { useBench } from "../state/bench";

interface Props {
  coupon: Coupon;
  onNeck(row: Row, number: number): void;
  onHole(number: number): void;
}

const OUTCOMES = { true: "held", false: "broke", null: "not tried" } as const;
const said = (outcome: boolean | null) => OUTCOMES[String(outcome) as keyof typeof OUTCOMES];

/** A little more than half an arm: its edge goes with it. */
const HALF_ARM = 3.2;

/** Lines through corners; the stage has y downwards. */
const pathOf = (ring: Float64Array) =>
  `${Array.from({ length: ring.length / 2 }, (_, i) => `${i === 0 ? "M" : "L"}${ring[2 * i]} ${COUPON_SIZE.height - ring[2 * i + 1]!}`).join("")}Z`;

const circle = (x: number, y: number, r: number) =>
  `M${x + r} ${COUPON_SIZE.height - y}a${r} ${r} 0 0 1 ${-2 * r} 0a${r} ${r} 0 0 1 ${2 * r} 0Z`;

/** The test piece as it came off the machine: what broke is gone, what held has a tick. Each neck and each hole can be pressed. */
export function CouponStage({ coupon, onNeck, onHole }: Props) {
  const { plan, stock, readings } = coupon;
  const units = useBench((state) => state.units);
  const { width, height } = COUPON_SIZE;
  const holes = holePlaces(plan);
  const outline = [
    ...couponRings(plan).map(pathOf),
    ...holes.map(({ x, y, diameter }) => circle(x, y, diameter / 2)),
    ...pullPlaces.map(({ hook }) => circle(hook.x, hook.y, PULLED.hole / 2)),
  ].join("");
  const grain = hasGrain(stock);
  const pressed = (work: () => void) => ({
    role: "button",
    tabIndex: 0,
    onClick: work,
    onKeyDown: (event: KeyboardEvent) => {
      if (event.key !== "Enter" && event.key !== " ") return;
      event.preventDefault();
      work();
    },
  });
  return (
    <svg
      viewBox={`-4 -4 ${width + 8} ${height + 8}`}
      className="h-full w-full select-none"
      role="group"
      aria-label={`${coupon.name}, as it was read`}
    >
      <defs>
        <MaterialPattern id="coupon-sheet" sheet={stock} />
      </defs>
      <path
        d={outline}
        fillRule="evenodd"
        fill="url(#coupon-sheet)"
        stroke={lookOf(stock).edge}
        strokeWidth={0.25}
        strokeLinejoin="round"
      />
      {holes.map(({ x, y, diameter }, number) => {
        const clean = readings.holes[number]!;
        return (
          <g
            key={diameter}
            {...pressed(() => onHole(number))}
            aria-label={`Hole ${number + 1}, ${formatLength(diameter, units, 2)}: ${clean === null ? "not tried" : clean ? "clean" : "not clean"}`}
            data-testid={`hole-${number + 1}`}
          >
            <rect
              x={x - 3.3}
              y={height - y - 3.3}
              width={6.6}
              height={10.4}
              rx={1}
              className="fill-transparent hover:fill-ink/10"
            />
            <text x={x} y={height - y + 6.4} textAnchor="middle" fontSize={2.6} className="figure fill-ink/75">
              {number + 1}
            </text>
            <Mark outcome={clean} x={x} y={height - y - 3.4} />
          </g>
        );
      })}
      {neckPlaces(plan).map((neck) => {
        const { row, number } = neck;
        const outcome = readings.necks[row][number]!;
        return (
          <g
            key={`${row} ${number}`}
            {...pressed(() => onNeck(row, number))}
            aria-label={`Neck ${number + 1} of ${rowName(row, grain)}, ${formatLength(neck.width, units, 2)}: ${said(outcome)}`}
            data-testid={`neck-${row.replace(" ", "-")}-${number + 1}`}
          >
            <Arm neck={neck} outcome={outcome} />
          </g>
        );
      })}
      {neckPlaces(plan).map(({ row, number, root }) => {
        if (row === "short across")
          return <NeckNumber key={`${row} ${number}`} x={root.x} y={height - root.y - 1.4} number={number} />;
        if (row === "long along")
          return <NeckNumber key={`${row} ${number}`} x={root.x - 3.2} y={height - root.y + 0.9} number={number} />;
        return null;
      })}
    </svg>
  );
}

function NeckNumber({ x, y, number }: { x: number; y: number; number: number }) {
  return (
    <text x={x} y={y} textAnchor="middle" fontSize={2.6} className="figure fill-ink/75" aria-hidden="true">
      {number + 1}
    </text>
  );
}

/** The arm behind a neck: it can be pressed, and is gone where it broke. */
function Arm({ neck: { root, direction, lever, width }, outcome }: { neck: PlacedNeck; outcome: boolean | null }) {
  const [fromX, fromY] = [root.x, COUPON_SIZE.height - root.y];
  const [toX, toY] = [fromX + direction.x * lever, fromY - direction.y * lever];
  const across = direction.x === 0;
  const half = across ? [HALF_ARM, 0] : [0, HALF_ARM];
  const [x, y] = [Math.min(fromX, toX) - half[0]!, Math.min(fromY, toY) - half[1]!];
  const [w, h] = [Math.abs(toX - fromX) + 2 * half[0]!, Math.abs(toY - fromY) + 2 * half[1]!];
  const middle = { x: fromX + direction.x * (lever / 2 + 1), y: fromY - direction.y * (lever / 2 + 1) };
  return (
    <>
      {outcome === false && (
        <>
          <rect x={x} y={y} width={w} height={h} className="fill-film" />
          <rect
            x={across ? fromX - width / 2 : Math.min(fromX, fromX + direction.x * 0.7)}
            y={across ? Math.min(fromY, fromY - direction.y * 0.7) : fromY - width / 2}
            width={across ? width : 0.7}
            height={across ? 0.7 : width}
            className="fill-falls"
          />
        </>
      )}
      <rect x={x} y={y} width={w} height={h} className="fill-transparent hover:fill-ink/10" />
      <Mark outcome={outcome} x={middle.x} y={middle.y} />
    </>
  );
}

/** A tick for what held, a cross for what broke: told apart without colour. */
function Mark({ outcome, x, y }: { outcome: boolean | null; x: number; y: number }) {
  if (outcome === null) return null;
  const d = outcome ? `M${x - 1.4} ${y}l1 1.1l1.9 -2.3` : `M${x - 1.1} ${y - 1.1}l2.2 2.2m0 -2.2l-2.2 2.2`;
  return (
    <path
      d={d}
      fill="none"
      strokeWidth={0.6}
      strokeLinecap="round"
      strokeLinejoin="round"
      className={outcome ? "stroke-ink" : "stroke-falls"}
    />
  );
}
