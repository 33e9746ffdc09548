/**
 * The piece as it will be, the lines that the machine follows, or the pages of the paper pattern.
 */
import { curveData, OVERLAP, PatternError, type PatternLayout, pathData, patternLayout } from "@mend-joint/core/formats";
import { type Box, regionBox, ringArea } from "@mend-joint/core/geometry";
import { formatLength, formatNumber, hasGrain, type Piece, startHoleFor } from "@mend-joint/core/piece";
import { useMemo, useRef } from "react";
import { lookOf, MaterialPattern } from "../stage/materials";
import { linePath, regionPath } from "../stage/paths";
import { Rulers } from "../stage/Rulers";
import { fitView, type View } from "../stage/view";
import { useBench } from "../state/bench";
import { useCutting } from "../state/cutting";
import { useSize } from "../ui/useSize";
import type { CutSheet } from "../workers/cutting";
import type { CutView } from "./views";

export function CutStage({ piece, sheet, view }: { piece: Piece; sheet: CutSheet | null; view: Exclude<CutView, "trial"> }) {
  const frame = useRef<HTMLDivElement>(null);
  const size = useSize(frame);
  const units = useBench((state) => state.units);
  const pages = usePages(sheet);
  const box = boxShown(sheet, view, pages);
  const shown = fitView(box, size, view === "finished" ? 72 : 60);
  return (
    <div ref={frame} className="absolute inset-0" data-testid="cut-stage">
      {!sheet && <p className="grid h-full place-items-center text-quiet">Drawing up the lines …</p>}
      {sheet && !box && (
        <p className="grid h-full place-items-center font-display text-[22px] text-quiet">There is nothing to cut yet.</p>
      )}
      {sheet && box && size.width > 0 && (
        <svg width={size.width} height={size.height} className="block" role="img" aria-label={LABELS[view](piece.name)}>
          <defs>
            <MaterialPattern id="sheet" sheet={piece.stock} />
          </defs>
          <g
            transform={`translate(${size.width / 2} ${size.height / 2}) scale(${shown.scale} ${-shown.scale}) translate(${-shown.x} ${-shown.y})`}
          >
            {view === "finished" && <Finished sheet={sheet} piece={piece} />}
            {view === "lines" && <Lines sheet={sheet} view={shown} />}
            {view === "paper" && pages && <Pages sheet={sheet} piece={piece} layout={pages} />}
          </g>
          {view !== "paper" && <Rulers view={shown} size={size} units={units} />}
        </svg>
      )}
      {sheet?.sheet.box && (
        <p className="figure absolute bottom-3 left-9 rounded-full bg-film/90 px-2 text-[12px] text-quiet">
          {view === "paper" && pages
            ? `${pages.columns * pages.rows} ${pages.columns * pages.rows === 1 ? "page" : "pages"}`
            : `${formatNumber(sheet.sheet.box.maxX - sheet.sheet.box.minX, units)} × ${formatLength(sheet.sheet.box.maxY - sheet.sheet.box.minY, units)}`}
        </p>
      )}
    </div>
  );
}

const LABELS: Record<Exclude<CutView, "trial">, (name: string) => string> = {
  finished: (name) => `${name}, finished`,
  lines: (name) => `Lines of ${name}`,
  paper: (name) => `Pages of the paper pattern of ${name}`,
};

function boxShown(sheet: CutSheet | null, view: CutView, pages: PatternLayout | null): Box | null {
  if (!sheet?.sheet.box) return null;
  if (view === "finished") return sheet.sheet.box;
  if (view === "lines") return { minX: 0, minY: 0, maxX: sheet.plan.width, maxY: sheet.plan.height };
  if (!pages) return null;
  const { start, step, window, columns, rows } = pages;
  return {
    minX: start.x,
    minY: start.y,
    maxX: start.x + (columns - 1) * step.x + window.width,
    maxY: start.y + (rows - 1) * step.y + window.height,
  };
}

function usePages(sheet: CutSheet | null): PatternLayout | null {
  const paper = useCutting((state) => state.paper);
  const landscape = useCutting((state) => state.landscape);
  return useMemo(() => {
    const box = sheet && regionBox(sheet.sheet.material);
    if (!box) return null;
    try {
      return patternLayout(box.maxX - box.minX, box.maxY - box.minY, { paper, landscape });
    } catch (error) {
      if (error instanceof PatternError) return null;
      throw error;
    }
  }, [sheet, paper, landscape]);
}

function Finished({ sheet: { sheet }, piece }: { sheet: CutSheet; piece: Piece }) {
  const look = lookOf(piece.stock);
  const outline = regionPath(sheet.material);
  return (
    <g fillRule="evenodd">
      <path d={outline} transform="translate(0.5 -0.8)" fill={look.side} opacity={look.sideOpacity} />
      <path
        d={outline}
        fill="url(#sheet)"
        fillOpacity={look.opacity ?? 1}
        stroke={look.edge}
        strokeWidth={1}
        vectorEffect="non-scaling-stroke"
      />
      <path d={regionPath(sheet.engrave)} fill={look.edge} fillOpacity={0.55} />
      <path
        d={sheet.score.map(linePath).join("")}
        fill="none"
        stroke={look.edge}
        strokeWidth={1.4}
        vectorEffect="non-scaling-stroke"
      />
    </g>
  );
}

/** Each line in the colour of its purpose, with its place in the order where it begins. */
function Lines({ sheet: { plan }, view }: { sheet: CutSheet; view: View }) {
  const { lines, fills, profile } = plan;
  const pixel = 1 / view.scale;
  const cuts = lines.filter(({ purpose }) => purpose === "cut");
  return (
    <>
      <path d={regionPath(plan.cut)} fill="var(--color-ground)" fillRule="evenodd" />
      <path d={fills.map(curveData).join("")} fill={profile.lines.engrave.colour} fillOpacity={0.6} fillRule="evenodd" />
      {lines.map(({ path, purpose }, i) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: lines have no name but their place in the order
          key={i}
          d={curveData(path)}
          fill="none"
          stroke={profile.lines[purpose].colour}
          strokeWidth={1.4}
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {cuts.length <= MOST_NUMBERS &&
        cuts.map(({ path }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: as above
          <g key={i} transform={`translate(${path.x} ${path.y}) scale(${pixel} ${-pixel})`}>
            <circle r={8} fill="var(--color-film)" stroke={profile.lines.cut.colour} />
            <text y={3.5} textAnchor="middle" fontSize={10} className="figure" fill="var(--color-ink)">
              {i + 1}
            </text>
          </g>
        ))}
    </>
  );
}

/** With more cuts than this their numbers would cover them. */
const MOST_NUMBERS = 60;

function Pages({ sheet: { sheet, starts }, piece, layout }: { sheet: CutSheet; piece: Piece; layout: PatternLayout }) {
  const { start, step, window, columns, rows } = layout;
  const { hatch, drill } = useCutting();
  const box = sheet.box!;
  const cells = Array.from({ length: columns * rows }, (_, k) => ({
    x: start.x + (k % columns) * step.x,
    y: start.y + Math.floor(k / columns) * step.y,
    number: (rows - 1 - Math.floor(k / columns)) * columns + (k % columns) + 1,
  }));
  const r = (drill ?? startHoleFor(piece.stock)) / 2;
  const arrow = Math.min(window.width, window.height) * 0.12;
  return (
    <>
      <defs>
        <pattern id="void" width={2.5} height={2.5} patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <path d="M0 0v2.5" stroke="var(--color-quiet)" strokeWidth={0.35} />
        </pattern>
      </defs>
      {cells.map(({ x, y }) => (
        <rect
          key={`${x} ${y}`}
          x={x}
          y={y}
          width={window.width}
          height={window.height}
          fill="#fff"
          stroke="var(--color-rule)"
          vectorEffect="non-scaling-stroke"
        />
      ))}
      <g transform={`translate(${-box.minX} ${-box.minY})`}>
        {hatch && (
          <path
            d={sheet.material
              .filter((ring) => ringArea(ring) > 0)
              .map((ring) => pathData(ring))
              .join("")}
            fill="url(#void)"
          />
        )}
        <path
          d={regionPath(sheet.material)}
          fill={hatch ? "#fff" : "none"}
          fillRule="evenodd"
          stroke="var(--color-ink)"
          strokeWidth={1.2}
          vectorEffect="non-scaling-stroke"
        />
        {starts?.holes.map(({ x, y }) => (
          <g key={`${x} ${y}`} fill="#fff" stroke="var(--color-ink)" strokeWidth={1}>
            <circle cx={x} cy={y} r={r} vectorEffect="non-scaling-stroke" />
            <path d={`M${x - r * 1.8} ${y}h${r * 3.6}M${x} ${y - r * 1.8}v${r * 3.6}`} vectorEffect="non-scaling-stroke" />
          </g>
        ))}
      </g>
      {cells.map(({ x, y, number }) => (
        <g key={number} transform={`translate(${x + 6} ${y + window.height - 12}) scale(1 -1)`}>
          <text fontSize={9} className="figure" fill="var(--color-quiet)">
            {number}
          </text>
        </g>
      ))}
      {columns > 1 &&
        joins(columns, start.x, step.x).map((x) => <Join key={x} x={x} y={start.y} up={(rows - 1) * step.y + window.height} />)}
      {rows > 1 &&
        joins(rows, start.y, step.y).map((y) => <Join key={y} x={start.x} y={y} along={(columns - 1) * step.x + window.width} />)}
      {hasGrain(piece.stock) && (
        <g
          transform={`translate(${start.x + (columns - 1) * step.x + window.width - arrow - 8} ${start.y + (rows - 1) * step.y + window.height - 14}) rotate(${piece.grain ?? 0})`}
          fill="none"
          stroke="var(--color-quiet)"
          strokeWidth={1.4}
        >
          <title>Direction of the grain</title>
          <path
            d={`M${-arrow} 0H${arrow}M${arrow - 4} 2L${arrow} 0L${arrow - 4} -2M${-arrow + 4} 2L${-arrow} 0L${-arrow + 4} -2`}
            vectorEffect="non-scaling-stroke"
          />
        </g>
      )}
    </>
  );
}

/** Middles of what neighbouring pages share. */
const joins = (count: number, start: number, step: number) =>
  Array.from({ length: count - 1 }, (_, k) => start + (k + 1) * step + OVERLAP / 2);

function Join({ x, y, up, along }: { x: number; y: number; up?: number; along?: number }) {
  return (
    <path
      d={up === undefined ? `M${x} ${y}h${along}` : `M${x} ${y}v${up}`}
      stroke="var(--color-quiet)"
      strokeDasharray="4 4"
      vectorEffect="non-scaling-stroke"
    />
  );
}
