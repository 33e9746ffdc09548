/**
 * The piece in its material: what has fallen lies below its dotted place; handles, callipers and marks lie over it.
 */
import type { Examination } from "@mend-joint/core";
import { type Point, type Region, regionBox, transformRegion } from "@mend-joint/core/geometry";
import type { Piece } from "@mend-joint/core/piece";
import { sheetOf, twinMatrix } from "@mend-joint/core/report";
import { type MouseEvent, useMemo } from "react";
import { useBench } from "../state/bench";
import { BridgeHandles } from "./BridgeHandles";
import { Callipers } from "./Callipers";
import { Caret } from "./Caret";
import { EdgeHandles } from "./EdgeHandles";
import { fallStyle, fallsOf } from "./fallen";
import { LineHandles } from "./LineHandles";
import { BentPiece, LoadMarks, LoadStrokes } from "./Loads";
import { MoveNote } from "./MoveNote";
import { lookOf } from "./materials";
import { useMeasures } from "./measures";
import { linePath, regionPath } from "./paths";
import { TieHandles } from "./TieHandles";
import { TurnPartHandle } from "./TurnPartHandle";
import { type Size, toPiece, toScreen, type View } from "./view";
import { Widths } from "./Widths";

export function PieceDrawing({
  examination,
  piece,
  view,
  size,
}: {
  examination: Examination;
  piece: Piece;
  view: View;
  size: Size;
}) {
  const selection = useBench((state) => state.selection);
  const pointed = useBench((state) => state.pointed);
  const move = useBench((state) => state.move);
  const preview = useBench((state) => state.preview ?? state.proposed);
  const pointedJoint = useBench((state) => state.pointedJoint);
  const units = useBench((state) => state.units);
  const skeleton = useBench((state) => (state.show === "widths" ? examination.skeleton : undefined));
  const fallTest = useBench((state) => state.fallTest);
  const loads = useBench((state) => (state.show === "loads" ? (state.loads?.test ?? null) : null));
  const fingered = useBench((state) => (state.show === "loads" ? state.fingered : null));
  const look = lookOf(piece.stock);
  const { cutouts, solids, ghosts, scores, box, leastWidth } = examination;
  const falls = useMemo(() => fallsOf(examination), [examination]);
  const measures = useMeasures(examination);
  const handled = new Set(move ? (selection?.solids ?? []) : []);
  const marked = new Set([...(selection?.solids ?? []), ...pointed]);
  const joint = pointedJoint === null ? undefined : examination.joints[pointedJoint];
  const goes = new Set(joint?.takes.map((i) => solids[i]!.id));

  return (
    <>
      <g
        transform={`translate(${size.width / 2} ${size.height / 2}) scale(${view.scale} ${-view.scale}) translate(${-view.x} ${-view.y})`}
      >
        {piece.pair && box && <Twin examination={examination} pair={piece.pair} edge={look.edge} />}
        {cutouts.map(({ region, solids: inside }, i) => {
          const fall = falls[i];
          const path = regionPath(region);
          const dropped = fall && !inside.some((s) => handled.has(solids[s]!.id));
          return (
            <g
              // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no name of their own; a fall test starts the movement anew
              key={`${i} ${fallTest}`}
              className={fallTest > 0 && !fall ? "shaken" : undefined}
              style={fallTest > 0 && box ? { transformOrigin: `${(box.minX + box.maxX) / 2}px ${box.minY}px` } : undefined}
            >
              {dropped && (
                <path
                  d={path}
                  fill="none"
                  stroke="var(--color-falls)"
                  strokeWidth={1.5}
                  strokeDasharray="1 4"
                  strokeLinecap="round"
                  vectorEffect="non-scaling-stroke"
                />
              )}
              <g
                className={dropped ? (fallTest > 0 ? "dropped tested" : "dropped") : undefined}
                style={dropped ? fallStyle(fall) : undefined}
              >
                <path d={path} transform="translate(0.35 -0.55)" fill={look.side} opacity={look.sideOpacity} fillRule="evenodd" />
                <path
                  d={path}
                  fill="url(#sheet)"
                  fillOpacity={(look.opacity ?? 1) * (skeleton || loads ? 0.25 : 1)}
                  stroke={look.edge}
                  strokeWidth={1}
                  vectorEffect="non-scaling-stroke"
                  fillRule="evenodd"
                  opacity={dropped ? 0.85 : 1}
                />
                {dropped &&
                  inside.map((s) => <Handle key={s} id={solids[s]!.id} path={regionPath(solids[s]!.region)} marked={false} />)}
              </g>
            </g>
          );
        })}
        {ghosts.map(
          (ghost) =>
            ghost.as === "engrave" && (
              <path
                key={ghost.id}
                d={regionPath(ghost.region)}
                fill={look.edge}
                fillOpacity={0.55}
                fillRule="evenodd"
                pointerEvents="none"
              />
            ),
        )}
        <path
          d={scores.map(({ line }) => linePath(line)).join("")}
          fill="none"
          stroke={look.edge}
          strokeWidth={1.4}
          vectorEffect="non-scaling-stroke"
          pointerEvents="none"
        />
        {skeleton && <Widths skeleton={skeleton} leastWidth={leastWidth} />}
        {loads && <LoadStrokes test={loads} />}
        {loads && fingered && <BentPiece fingered={fingered} />}
        {preview && <MendPreview added={preview.added} removed={preview.removed} />}
        {/* In the load test a press is a finger on the place; what is dragged moves as ever. */}
        <g
          {...(loads && {
            "data-testid": "push",
            onClick: (event: MouseEvent<SVGGElement>) => {
              const at = toPiece(view, size, pointIn(event));
              useBench.setState({ finger: { at, letter: null }, selection: null });
            },
          })}
        >
          {smallOnTop([...solids, ...ghosts]).map((solid) => (
            <Handle
              key={solid.id}
              id={solid.id}
              path={regionPath(solid.region)}
              marked={marked.has(solid.id)}
              goes={goes.has(solid.id)}
            />
          ))}
        </g>
      </g>
      {loads && <LoadMarks test={loads} fingered={fingered} view={view} size={size} />}
      {piece.purpose !== "key ring" && examination.hangers.length === 1 && examination.centre && (
        <PlumbLine from={toScreen(view, size, examination.hangers[0]!.at)} to={toScreen(view, size, examination.centre)} />
      )}
      {examination.centre && <CentreOfMass at={toScreen(view, size, examination.centre)} />}
      <Callipers
        measures={loads ? [] : measures}
        view={view}
        size={size}
        units={units}
        middle={{ x: box ? (box.minX + box.maxX) / 2 : 0, y: box ? (box.minY + box.maxY) / 2 : 0 }}
      />
      <Caret examination={examination} view={view} size={size} />
      <LineHandles examination={examination} piece={piece} view={view} size={size} />
      <BridgeHandles examination={examination} view={view} size={size} />
      <TieHandles examination={examination} piece={piece} view={view} size={size} />
      <EdgeHandles examination={examination} piece={piece} view={view} size={size} />
      <TurnPartHandle examination={examination} piece={piece} view={view} size={size} />
      {move && <MoveNote examination={examination} move={move} view={view} size={size} />}
    </>
  );
}

/** Where a press lies in the stage, pixels. */
function pointIn(event: MouseEvent<SVGGElement>): Point {
  const { left, top } = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
  return { x: event.clientX - left, y: event.clientY - top };
}

/** The mirrored twin of one of a pair: it is cut as well, and follows. */
function Twin({ examination, pair, edge }: { examination: Examination; pair: NonNullable<Piece["pair"]>; edge: string }) {
  const { engrave } = sheetOf({ pair }, examination);
  const twin = transformRegion(examination.material, twinMatrix(examination.box!, pair.gap));
  const own = examination.ghosts.reduce((n, { as, region }) => n + (as === "engrave" ? region.length : 0), 0);
  return (
    <g pointerEvents="none" opacity={0.5} data-testid="twin">
      <path
        d={regionPath(twin)}
        fill="url(#sheet)"
        stroke={edge}
        strokeWidth={1}
        vectorEffect="non-scaling-stroke"
        fillRule="evenodd"
      />
      <path d={regionPath(engrave.slice(own))} fill={edge} fillOpacity={0.55} fillRule="evenodd" />
    </g>
  );
}

/** From the hole that a piece hangs by straight down, and to its centre of mass, which will swing below it. */
function PlumbLine({ from, to }: { from: Point; to: Point }) {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  return (
    <g pointerEvents="none" fill="none" stroke="var(--color-ink)">
      <path d={`M${from.x} ${from.y}v${length}`} strokeWidth={1} strokeDasharray="2 4" />
      <path d={`M${from.x} ${from.y}L${to.x} ${to.y}`} strokeWidth={1} />
    </g>
  );
}

/** Where the piece balances. */
function CentreOfMass({ at }: { at: Point }) {
  return (
    <g transform={`translate(${at.x} ${at.y})`}>
      <title>Centre of mass</title>
      <circle r={7} fill="var(--color-film)" stroke="var(--color-ink)" strokeWidth={1.2} />
      <path d="M0 0V-7A7 7 0 0 1 7 0ZM0 0V7A7 7 0 0 1 -7 0Z" fill="var(--color-ink)" />
    </g>
  );
}

/** What a mend would add, filled; what it would take away, dotted. */
function MendPreview({ added, removed }: { added: Region; removed: Region }) {
  return (
    <g pointerEvents="none" stroke="var(--color-holds)" strokeWidth={2} fillRule="evenodd">
      <path d={regionPath(added)} fill="var(--color-holds)" fillOpacity={0.75} vectorEffect="non-scaling-stroke" />
      <path
        d={regionPath(removed)}
        fill="var(--color-film)"
        fillOpacity={0.6}
        strokeDasharray="2 4"
        vectorEffect="non-scaling-stroke"
      />
    </g>
  );
}

/** Small parts lie over large ones, so that each can be taken: a tie over the letter that it bridges. */
function smallOnTop<S extends { region: Region }>(parts: readonly S[]): S[] {
  const size = ({ region }: S) => {
    const box = regionBox(region);
    return box ? (box.maxX - box.minX) * (box.maxY - box.minY) : 0;
  };
  const sizes = new Map(parts.map((part) => [part, size(part)]));
  return [...parts].sort((a, b) => sizes.get(b)! - sizes.get(a)!);
}

/** An invisible copy of a part's outline that can be taken in the hand; shown where the part would go with a joint. */
function Handle({ id, path, marked, goes = false }: { id: string; path: string; marked: boolean; goes?: boolean }) {
  return (
    <path
      d={path}
      data-solid={id}
      fill={goes ? "var(--color-falls)" : "transparent"}
      fillOpacity={goes ? 0.35 : 1}
      stroke={marked ? "var(--color-focus)" : goes ? "var(--color-falls)" : "none"}
      strokeDasharray={goes && !marked ? "2 4" : undefined}
      strokeWidth={2}
      vectorEffect="non-scaling-stroke"
      className="cursor-grab active:cursor-grabbing"
    />
  );
}
