import { boxOfShape, type RowShape, unpackRegion } from "@mend-joint/core/runs";
import { memo, useId, useMemo } from "react";
import { lookOf, MaterialPattern, type SheetLook } from "../stage/materials";
import { regionPath } from "../stage/paths";

interface Props {
  shape: RowShape | undefined;
  sheet: SheetLook;
}

/** A finished piece of a run, small; what falls is dotted, and lower than where it was. */
export const RowDrawing = memo(function RowDrawing({ shape, sheet }: Props) {
  const id = useId();
  const drawn = useMemo(() => {
    const box = shape && boxOfShape(shape);
    if (!box) return null;
    return {
      box,
      held: regionPath(unpackRegion(shape.held)),
      fallen: regionPath(unpackRegion(shape.fallen)),
      engraved: regionPath(unpackRegion(shape.engraved)),
    };
  }, [shape]);
  if (!drawn) return null;
  const { box, held, fallen, engraved } = drawn;
  const look = lookOf(sheet);
  const drop = fallen ? 3 : 0;
  const edge = { stroke: look.edge, strokeWidth: 0.8, vectorEffect: "non-scaling-stroke", fillRule: "evenodd" } as const;
  return (
    <svg
      viewBox={`${box.minX - 1} ${-box.maxY - 1} ${box.maxX - box.minX + 2} ${box.maxY - box.minY + 2 + drop}`}
      className="size-full"
      aria-hidden="true"
    >
      <defs>
        <MaterialPattern id={id} sheet={sheet} />
      </defs>
      <g transform="scale(1 -1)">
        <path d={held} fill={`url(#${CSS.escape(id)})`} fillOpacity={look.opacity ?? 1} {...edge} />
        {fallen && (
          <>
            <path d={fallen} fill="none" stroke="var(--color-falls)" strokeDasharray="1 3" vectorEffect="non-scaling-stroke" />
            <path
              d={fallen}
              transform={`translate(0 ${-drop})`}
              fill={`url(#${CSS.escape(id)})`}
              {...edge}
              stroke="var(--color-falls)"
            />
          </>
        )}
        {engraved && <path d={engraved} fill={look.edge} fillOpacity={0.55} fillRule="evenodd" />}
      </g>
    </svg>
  );
});
