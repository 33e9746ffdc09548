/**
 * The board with the piece on it: drawn in its material at true proportions, measured on itself, moved by hand.
 */
import type { Examination } from "@mend-joint/core";
import { type Point, type Region, regionBox, transformRegion } from "@mend-joint/core/geometry";
import { isNarrower } from "@mend-joint/core/judge";
import type { Piece } from "@mend-joint/core/piece";
import { sheetOf, twinMatrix } from "@mend-joint/core/report";
import { Maximize, Minus, Plus } from "lucide-react";
import { type ReactNode, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useBench } from "../state/bench";
import { isTyping } from "../ui/typing";
import { useSize } from "../ui/useSize";
import { Callipers, type Measure } from "./Callipers";
import { Caret } from "./Caret";
import { EdgeHandles } from "./EdgeHandles";
import { FallReport } from "./FallTest";
import { FinishedSize } from "./FinishedSize";
import { fallStyle, fallsOf } from "./fallen";
import { HandCard } from "./HandCard";
import { LineHandles } from "./LineHandles";
import { MoveNote } from "./MoveNote";
import { LOOKS, MaterialPattern } from "./materials";
import { linePath, regionPath } from "./paths";
import { Rulers } from "./Rulers";
import { TieHandles } from "./TieHandles";
import { useHand } from "./useHand";
import { fitView, type Size, toScreen, type View, zoomAt } from "./view";
import { Widths, WidthsLegend } from "./Widths";

const MOST_CALLIPERS = 14;

interface Props {
  piece: Piece;
  /** The choices of what is in the hand, shown beside it. */
  beside?: ReactNode;
}

export function Stage({ piece, beside }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const size = useSize(frame);
  const examination = useBench((state) => state.examination);
  const units = useBench((state) => state.units);
  const place = useBench((state) => state.place);
  const [view, setView] = useState<View>({ x: 0, y: 0, scale: 3 });
  /** Until the maker zooms or pans, the stage follows the size of the piece. */
  const [following, setFollowing] = useState(true);
  const show = useBench((state) => state.show);

  const box = useMemo(() => (examination ? sheetOf(piece, examination).box : null), [examination, piece]);
  const fit = useCallback(() => {
    setFollowing(true);
    setView(fitView(box, size));
  }, [box, size]);

  const moving = useBench((state) => state.move !== null);
  useEffect(() => {
    if (following && !moving && size.width > 0) setView(fitView(box, size));
  }, [following, moving, box, size]);

  useEffect(() => {
    if (!place || size.width === 0) return;
    setFollowing(false);
    setView({ x: place.x, y: place.y, scale: Math.min(size.width, size.height) / place.around });
  }, [place, size]);

  const zoom = useCallback(
    (factor: number, at = { x: size.width / 2, y: size.height / 2 }) => {
      setFollowing(false);
      setView((old) => zoomAt(old, size, at, factor));
    },
    [size],
  );

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === "0") fit();
      else if (event.key === "+" || event.key === "=") zoom(1.4);
      else if (event.key === "-") zoom(1 / 1.4);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [fit, zoom]);

  useHand({
    frame,
    view,
    size,
    zoom,
    pan: (dx, dy) => {
      setFollowing(false);
      setView((old) => ({ ...old, x: old.x - dx / old.scale, y: old.y + dy / old.scale }));
    },
  });

  return (
    <div className="@container relative min-h-0 flex-1 overflow-hidden bg-film">
      <div ref={frame} className="absolute inset-0 touch-none select-none" data-testid="stage">
        <svg
          width={size.width}
          height={size.height}
          className="block"
          role="group"
          aria-label={`${piece.name}, as it will be cut`}
        >
          <defs>
            <MaterialPattern id="sheet" material={piece.stock.material} />
          </defs>
          {examination && size.width > 0 && <PieceDrawing examination={examination} piece={piece} view={view} size={size} />}
          <Rulers view={view} size={size} units={units} />
        </svg>
      </div>
      {examination && !box && (
        <p className="pointer-events-none absolute inset-x-0 top-1/2 -translate-y-1/2 text-center font-display text-[22px] text-quiet">
          Type a word in step 1, and it will lie here.
        </p>
      )}
      {examination && beside && (
        <HandCard examination={examination} view={view} size={size}>
          {beside}
        </HandCard>
      )}
      {examination && <FallReport examination={examination} />}
      {examination?.box && <FinishedSize piece={piece} box={examination.box} />}
      {show === "widths" && examination && (
        <div className="absolute top-8 right-3">
          <WidthsLegend leastWidth={examination.leastWidth} units={units} />
        </div>
      )}
      <div className="absolute right-3 bottom-3 flex items-center gap-1">
        <StageSwitch
          pressed={show === "widths"}
          title="Show how wide every stroke is"
          onClick={() => useBench.setState({ show: show === "widths" ? "material" : "widths" })}
        >
          Widths
        </StageSwitch>
        <StageSwitch
          title="Lift the piece by its holder and shake it"
          onClick={() => {
            fit();
            useBench.setState(({ fallTest }) => ({ fallTest: fallTest + 1, selection: null }));
          }}
        >
          Fall test
        </StageSwitch>
        <StageButton label="Smaller" onClick={() => zoom(1 / 1.4)}>
          <Minus size={16} />
        </StageButton>
        <StageButton label="Show all of the piece" onClick={fit}>
          <Maximize size={15} />
        </StageButton>
        <StageButton label="Larger" onClick={() => zoom(1.4)}>
          <Plus size={16} />
        </StageButton>
      </div>
    </div>
  );
}

function StageSwitch({ pressed, ...props }: { pressed?: boolean; title: string; onClick(): void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-pressed={pressed}
      className={`h-9 rounded-full border px-4 text-[14px] ${pressed ? "border-ink bg-ink text-film" : "border-rule bg-film text-quiet hover:border-ink hover:text-ink"}`}
      {...props}
    />
  );
}

function StageButton({ label, ...props }: { label: string; onClick(): void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className="grid size-9 place-items-center rounded-full border border-rule bg-film text-quiet hover:border-ink hover:text-ink"
      {...props}
    />
  );
}

function PieceDrawing({ examination, piece, view, size }: { examination: Examination; piece: Piece; view: View; size: Size }) {
  const selection = useBench((state) => state.selection);
  const pointed = useBench((state) => state.pointed);
  const move = useBench((state) => state.move);
  const preview = useBench((state) => state.preview ?? state.proposed);
  const pointedJoint = useBench((state) => state.pointedJoint);
  const units = useBench((state) => state.units);
  const skeleton = useBench((state) => (state.show === "widths" ? examination.skeleton : undefined));
  const fallTest = useBench((state) => state.fallTest);
  const look = LOOKS[piece.stock.material];
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
                  fillOpacity={(look.opacity ?? 1) * (skeleton ? 0.25 : 1)}
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
        {preview && <MendPreview added={preview.added} removed={preview.removed} />}
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
      {piece.purpose !== "key ring" && examination.hangers.length === 1 && examination.centre && (
        <PlumbLine from={toScreen(view, size, examination.hangers[0]!.at)} to={toScreen(view, size, examination.centre)} />
      )}
      {examination.centre && <CentreOfMass at={toScreen(view, size, examination.centre)} />}
      <Callipers
        measures={measures}
        view={view}
        size={size}
        units={units}
        middle={{ x: box ? (box.minX + box.maxX) / 2 : 0, y: box ? (box.minY + box.maxY) / 2 : 0 }}
      />
      <Caret examination={examination} view={view} size={size} />
      <LineHandles examination={examination} piece={piece} view={view} size={size} />
      <TieHandles examination={examination} piece={piece} view={view} size={size} />
      <EdgeHandles examination={examination} piece={piece} view={view} size={size} />
      {move && <MoveNote examination={examination} move={move} view={view} size={size} />}
    </>
  );
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

/** Callipers for what matters: thin places, gaps of loose parts, the thinnest place that carries, and what is pointed at or in the hand. */
function useMeasures(examination: Examination): Measure[] {
  const selection = useBench((state) => state.selection);
  const pointed = useBench((state) => state.pointed);
  const pointedJoint = useBench((state) => state.pointedJoint);
  return useMemo(() => {
    const { joints, findings, holds, leastWidth, solids } = examination;
    const named = new Set([...(selection?.solids ?? []), ...pointed]);
    const shown = new Map<string, Measure>();
    const put = (
      chord: { from: Point; to: Point },
      width: number,
      state: Measure["state"],
      how: Pick<Measure, "strong" | "small" | "takes"> = {},
    ) => {
      const key = `${chord.from.x.toFixed(2)} ${chord.from.y.toFixed(2)} ${chord.to.x.toFixed(2)}`;
      if (how.strong || !shown.has(key)) shown.set(key, { key, from: chord.from, to: chord.to, width, state, ...how });
    };
    for (const { kind, means, parts, gap, chord, width } of findings) {
      if (gap) put(gap, gap.width, "gap");
      // Notes are shown when they are pointed at, so that they do not crowd what must be mended.
      if (chord && means !== "note") put(chord, width, "weak");
      else if (chord && parts.every((id) => pointed.includes(id)) && pointed.length > 0)
        put(chord, width, kind === "narrow-gap" ? "gap" : "weak", { strong: true });
    }
    const thinnest = holds.reduce<(typeof holds)[number] | null>(
      (least, hold) => (hold.neck && !hold.anchor && hold.width < (least?.width ?? Infinity) ? hold : least),
      null,
    );
    if (thinnest?.neck) put(thinnest.neck, thinnest.width, isNarrower(thinnest.width, leastWidth) ? "weak" : "holds");
    // Of the joints of what is in the hand the narrowest has jaws, the others ticks: they must not hide what they measure.
    const own = joints.filter(({ parts }) => named.size > 0 && parts.some((i) => named.has(solids[i]!.id)));
    const narrowest = own.reduce((least, { width }) => Math.min(least, width), Infinity);
    const stateOf = (width: number) => (isNarrower(width, leastWidth) ? "weak" : "holds");
    for (const joint of own) {
      const takes = joint.parts.map((i) => solids[i]!.id).find((id) => named.has(id));
      put(joint, joint.width, stateOf(joint.width), joint.width > narrowest ? { small: true, takes } : {});
    }
    const asked = pointedJoint === null ? undefined : joints[pointedJoint];
    if (asked) put(asked, asked.width, stateOf(asked.width), { strong: true });
    return [...shown.values()].sort((a, b) => Number(a.strong ?? false) - Number(b.strong ?? false)).slice(-MOST_CALLIPERS);
  }, [examination, selection, pointed, pointedJoint]);
}
