import type { Examination } from "@mend-joint/core";
import { type Box, regionBox } from "@mend-joint/core/geometry";
import { memo, useId } from "react";
import { fallStyle, fallsOf } from "./fallen";
import { lookOf, MaterialPattern, type SheetLook } from "./materials";
import { regionPath } from "./paths";

interface Props {
  examination: Examination;
  sheet: SheetLook;
  /** What is looked at; all of the piece, with what has dropped, where it is left out. */
  focus?: Box | undefined;
}

/** A piece as it will be, loose parts dropped. Drawn anew only where it is another: there are many on a page, of many points. */
export const Thumbnail = memo(function Thumbnail({ examination, sheet, focus }: Props) {
  const id = useId();
  const { cutouts, ghosts } = examination;
  const box = focus ?? examination.box;
  if (!box) return <p className="grid h-full place-items-center text-[13px] text-quiet">no words yet</p>;
  const look = lookOf(sheet);
  const falls = fallsOf(examination);
  const dropped = focus ? [] : cutouts.flatMap(({ region }, i) => (falls[i] ? regionBox(region)!.minY + falls[i].dy - 2 : []));
  const lowest = Math.min(box.minY, ...dropped);
  const [width, height] = [box.maxX - box.minX + 4, box.maxY - lowest + 4];
  return (
    <svg viewBox={`${box.minX - 2} ${-box.maxY - 2} ${width} ${height}`} className="size-full" aria-hidden="true">
      <defs>
        <MaterialPattern id={id} sheet={sheet} />
      </defs>
      <g transform="scale(1 -1)">
        {cutouts.map(({ region }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no name of their own
          <g key={i}>
            {falls[i] && (
              <path
                d={regionPath(region)}
                fill="none"
                stroke="var(--color-falls)"
                strokeWidth={1.4}
                strokeDasharray="1 3"
                strokeLinecap="round"
                vectorEffect="non-scaling-stroke"
              />
            )}
            <g style={falls[i] ? fallStyle(falls[i]) : undefined}>
              <path
                d={regionPath(region)}
                transform="translate(0.35 -0.55)"
                fill={look.side}
                opacity={look.sideOpacity}
                fillRule="evenodd"
              />
              <path
                d={regionPath(region)}
                fill={`url(#${CSS.escape(id)})`}
                fillOpacity={look.opacity ?? 1}
                stroke={look.edge}
                strokeWidth={0.8}
                vectorEffect="non-scaling-stroke"
                fillRule="evenodd"
              />
            </g>
          </g>
        ))}
        {ghosts.map(
          ({ id: ghost, as, region }) =>
            as === "engrave" && (
              <path key={ghost} d={regionPath(region)} fill={look.edge} fillOpacity={0.55} fillRule="evenodd" />
            ),
        )}
      </g>
    </svg>
  );
});
