/**
 * The outlines of a file, each to be pressed: those that are chosen as they would be cut.
 */
import type { Point } from "@mend-joint/core/geometry";
import type { Found } from "../workers/bringing";

interface Props {
  found: Found;
  chosen: ReadonlySet<number>;
  /** Shown faintly behind it. */
  picture: { width: number; height: number; url: string } | null;
  /** Told the place, in pixels of the picture, while a place of the background is wanted. */
  onBackground: ((at: Point) => void) | null;
  onToggle(index: number): void;
}

/** Room around the outlines, as a share of their size. */
const ROOM = 0.04;
/** More outlines than this are not reached by Tab one by one; they can still be pressed. */
const BY_KEYBOARD = 60;

export function Outlines({ found, chosen, picture, onBackground, onToggle }: Props) {
  const { minX, minY, maxX, maxY } = found.box;
  const room = ROOM * Math.max(maxX - minX, maxY - minY);
  const view = [minX - room, minY - room, maxX - minX + 2 * room, maxY - minY + 2 * room];
  // Large ones first, so that what lies inside them can be pressed.
  const order = found.outlines.map((_, i) => i).sort((a, b) => found.outlines[b]!.area - found.outlines[a]!.area);
  const material = [...chosen].map((i) => found.outlines[i]?.data ?? "").join("");
  const place = (event: React.PointerEvent<SVGSVGElement>) => {
    if (!onBackground || !picture) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(event.currentTarget.getScreenCTM()!.inverse());
    onBackground({
      x: ((at.x - minX) / (maxX - minX)) * picture.width,
      y: ((at.y - minY) / (maxY - minY)) * picture.height,
    });
  };
  return (
    <svg
      viewBox={view.join(" ")}
      className={`h-full w-full ${onBackground ? "cursor-crosshair" : ""}`}
      aria-label="Outlines of the file"
      role="group"
      onPointerDown={place}
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
        />
      )}
      <path d={material} fillRule="evenodd" className="fill-ink/75" opacity={onBackground ? 0.2 : 1} pointerEvents="none" />
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
    </svg>
  );
}
