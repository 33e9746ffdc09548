/**
 * The outlines of a file, each to be pressed: those that are chosen as they would be cut.
 */
import type { Box, FillRuleName, Point } from "@mend-joint/core/geometry";
import { type PointerEvent, useRef, useState } from "react";
import type { Found, ShownOutline } from "../workers/bringing";

interface Props {
  found: Found;
  chosen: ReadonlySet<number>;
  /** Shown faintly behind it. */
  picture: { width: number; height: number; url: string; turn: number } | null;
  /** Told the place, in pixels of the picture, while a place of the background is wanted. */
  onBackground: ((at: Point) => void) | null;
  onToggle(index: number): void;
  /** Told the outlines that a band was drawn around, and whether they are to be taken or left out. */
  onBand(indices: readonly number[], take: boolean): void;
}

/** Room around the outlines, as a share of their size. */
const ROOM = 0.04;
/** A press that has moved farther draws a band, px. */
const DRAWS = 6;

/** Where a press began, and a band once it is drawn, in mm of the file. */
interface Press {
  clientX: number;
  clientY: number;
  from: Point;
}

/** More outlines than this are not reached by Tab one by one; they can still be pressed. */
const BY_KEYBOARD = 60;

export function Outlines({ found, chosen, picture, onBackground, onToggle, onBand }: Props) {
  const press = useRef<Press | null>(null);
  const [band, setBand] = useState<Box | null>(null);
  const { minX, minY, maxX, maxY } = found.box;
  const room = ROOM * Math.max(maxX - minX, maxY - minY);
  const [middleX, middleY] = [(minX + maxX) / 2, (minY + maxY) / 2];
  // On the screen y runs downwards.
  const turned = new DOMMatrix()
    .translate(middleX, middleY)
    .rotate(-(picture?.turn ?? 0))
    .translate(-middleX, -middleY);
  const view = [minX - room, minY - room, maxX - minX + 2 * room, maxY - minY + 2 * room];
  // Large ones first, so that what lies inside them can be pressed.
  const order = found.outlines.map((_, i) => i).sort((a, b) => found.outlines[b]!.area - found.outlines[a]!.area);
  const material = shapesOf([...chosen].flatMap((i) => found.outlines[i] ?? []));
  const placeOf = (event: PointerEvent<SVGSVGElement>): Point =>
    new DOMPoint(event.clientX, event.clientY).matrixTransform(event.currentTarget.getScreenCTM()!.inverse());
  const down = (event: PointerEvent<SVGSVGElement>) => {
    const at = placeOf(event);
    if (!onBackground) {
      press.current = { clientX: event.clientX, clientY: event.clientY, from: at };
      return;
    }
    if (!picture) return;
    const level = new DOMPoint(at.x, at.y).matrixTransform(turned.inverse());
    onBackground({
      x: ((level.x - minX) / (maxX - minX)) * picture.width,
      y: ((level.y - minY) / (maxY - minY)) * picture.height,
    });
  };
  const move = (event: PointerEvent<SVGSVGElement>) => {
    const begun = press.current;
    if (!begun) return;
    if (!band && Math.hypot(event.clientX - begun.clientX, event.clientY - begun.clientY) < DRAWS) return;
    // From here on it is no press on an outline any more.
    if (!band) event.currentTarget.setPointerCapture(event.pointerId);
    setBand(boxBetween(begun.from, placeOf(event)));
  };
  const up = (event: PointerEvent<SVGSVGElement>) => {
    press.current = null;
    if (!band) return;
    const around = found.outlines.flatMap(({ box }, i) => (isWithin(box, band) ? [i] : []));
    onBand(around, !event.altKey);
    setBand(null);
  };
  const giveUp = () => {
    press.current = null;
    setBand(null);
  };
  return (
    <svg
      viewBox={view.join(" ")}
      className={`h-full w-full touch-none ${onBackground ? "cursor-crosshair" : ""}`}
      aria-label="Outlines of the file"
      role="group"
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={giveUp}
    >
      {picture && (
        <image
          href={picture.url}
          x={minX}
          y={minY}
          width={maxX - minX}
          height={maxY - minY}
          opacity={onBackground ? 1 : 0.25}
          preserveAspectRatio="none"
          transform={`rotate(${-picture.turn} ${middleX} ${middleY})`}
        />
      )}
      <g className="fill-ink" opacity={onBackground ? 0.15 : 0.75} pointerEvents="none">
        {material.map(({ shape, data, rule }) => (
          <path key={shape} d={data} fillRule={rule} />
        ))}
      </g>
      {!onBackground &&
        order.map((i) => {
          const taken = chosen.has(i);
          const { hole, data } = found.outlines[i]!;
          const name = `${hole ? "Hole" : "Outline"} ${i + 1}`;
          return (
            <path
              key={i}
              d={data}
              role="checkbox"
              aria-checked={taken}
              aria-label={name}
              tabIndex={i < BY_KEYBOARD ? 0 : -1}
              fill="transparent"
              vectorEffect="non-scaling-stroke"
              strokeWidth={1.5}
              strokeDasharray={taken ? undefined : "4 3"}
              className={`cursor-pointer outline-none hover:stroke-focus focus-visible:stroke-focus ${taken ? "stroke-ink" : "stroke-quiet"}`}
              onClick={() => onToggle(i)}
              onKeyDown={(event) => {
                if (event.key !== " " && event.key !== "Enter") return;
                event.preventDefault();
                onToggle(i);
              }}
            >
              <title>{taken ? `${name}: press to leave it out` : `${name}: press to take it`}</title>
            </path>
          );
        })}
      {band && (
        <rect
          x={band.minX}
          y={band.minY}
          width={band.maxX - band.minX}
          height={band.maxY - band.minY}
          className="fill-focus/10 stroke-focus"
          strokeDasharray="4 3"
          vectorEffect="non-scaling-stroke"
          pointerEvents="none"
        />
      )}
    </svg>
  );
}

const boxBetween = (a: Point, b: Point): Box => ({
  minX: Math.min(a.x, b.x),
  minY: Math.min(a.y, b.y),
  maxX: Math.max(a.x, b.x),
  maxY: Math.max(a.y, b.y),
});

const isWithin = (inner: Box, outer: Box): boolean =>
  inner.minX >= outer.minX && inner.maxX <= outer.maxX && inner.minY >= outer.minY && inner.maxY <= outer.maxY;

/** What is filled together: each filled shape by itself, and all that are only lines. */
function shapesOf(outlines: readonly ShownOutline[]) {
  const shapes = new Map<number, { shape: number; data: string; rule: FillRuleName }>();
  for (const { data, filled } of outlines) {
    const { shape, rule } = filled ?? { shape: -1, rule: "evenodd" };
    shapes.set(shape, { data: (shapes.get(shape)?.data ?? "") + data, rule, shape });
  }
  return [...shapes.values()];
}
