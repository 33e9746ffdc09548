import type { Examination } from "@mend-joint/core";
import type { Finding } from "@mend-joint/core/judge";
import { useRef } from "react";
import { lookOf, MaterialPattern, type SheetLook } from "../stage/materials";
import { regionPath } from "../stage/paths";
import { Rulers } from "../stage/Rulers";
import { fitView, toScreen } from "../stage/view";
import { useBench } from "../state/bench";
import { useSize } from "../ui/useSize";

interface Props {
  examination: Examination;
  sheet: SheetLook;
  /** The finding that is pointed at in the list. */
  pointed: Finding | null;
}

const INK = { falls: "var(--color-falls)", weak: "var(--color-weak)", holds: "var(--color-holds)", note: "var(--color-quiet)" };

/** A drawing from elsewhere in its material, with the places of what was found. */
export function CheckedStage({ examination, sheet, pointed }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const size = useSize(frame);
  const units = useBench((state) => state.units);
  const { box, cutouts, findings } = examination;
  const look = lookOf(sheet);
  const view = fitView(box, size, 64);
  const places = findings.filter((finding) => finding.means !== "note" || finding === pointed);
  return (
    <div ref={frame} className="absolute inset-0" data-testid="checked">
      {size.width > 0 && box && (
        <svg width={size.width} height={size.height} role="img" aria-label="The drawing, as it would be cut">
          <defs>
            <MaterialPattern id="checked-sheet" sheet={sheet} />
          </defs>
          <g
            transform={`translate(${size.width / 2} ${size.height / 2}) scale(${view.scale} ${-view.scale}) translate(${-view.x} ${-view.y})`}
          >
            {cutouts.map(({ region }, i) => (
              <path
                // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no name of their own
                key={i}
                d={regionPath(region)}
                fill="url(#checked-sheet)"
                fillOpacity={look.opacity ?? 1}
                fillRule="evenodd"
                stroke={i > 0 ? INK.falls : look.edge}
                strokeDasharray={i > 0 ? "2 4" : undefined}
                strokeWidth={i > 0 ? 1.8 : 1}
                vectorEffect="non-scaling-stroke"
              />
            ))}
          </g>
          {places.map((finding) => {
            const { x, y } = toScreen(view, size, finding.at);
            const strong = finding === pointed;
            return (
              <circle
                key={`${finding.kind} ${finding.at.x} ${finding.at.y} ${finding.parts.join(" ")}`}
                cx={x}
                cy={y}
                r={strong ? 16 : 9}
                fill="none"
                stroke={INK[finding.means]}
                strokeWidth={strong ? 3 : 1.8}
              />
            );
          })}
          {/* Counted from the lower left corner of the drawing, wherever that lies in its file. */}
          <Rulers view={{ ...view, x: view.x - box.minX, y: view.y - box.minY }} size={size} units={units} />
        </svg>
      )}
      {!box && <p className="grid h-full place-items-center text-quiet">There is nothing in it that could be cut out.</p>}
    </div>
  );
}
