import { type Matrix, type Region, regionBox, transformRegion } from "@mend-joint/core/geometry";
import { type Layout, outlineOf, type RowShape, type RunRow, unpackRegion } from "@mend-joint/core/runs";
import { Pin, RotateCw } from "lucide-react";
import { type KeyboardEvent, memo, type PointerEvent, useEffect, useId, useMemo, useRef, useState } from "react";
import { toast } from "sonner";
import { lookOf, MaterialPattern, type SheetLook } from "../stage/materials";
import { regionPath } from "../stage/paths";
import { moveToSheet } from "../state/offcuts";
import { movePlaces, shapeKey } from "../state/runs";
import { nudgeOf } from "../ui/arrows";
import { findTouched, shiftPlace, turnPlace } from "./moved";
import { nameOf } from "./rows";

interface Props {
  run: string;
  layout: Layout;
  rows: ReadonlyMap<number, RunRow>;
  shapes: ReadonlyMap<string, RowShape>;
  stock: SheetLook;
  chosen: number;
  onChoose(sheet: number): void;
}

/** All sheets, one below the other; pieces can be taken and moved. */
export function SheetStage({ layout, chosen, ...props }: Props) {
  const chosenSheet = useRef<HTMLElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another sheet was chosen
  useEffect(() => {
    chosenSheet.current?.scrollIntoView({ block: "nearest" });
  }, [chosen]);
  return (
    <div className="flex flex-col gap-6 px-6 py-5">
      {layout.sheets.map((_, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: sheets have no name but their number
        <section key={k} ref={k === chosen ? chosenSheet : null} aria-label={`Sheet ${k + 1}`}>
          <OneSheet {...props} layout={layout} k={k} />
        </section>
      ))}
    </div>
  );
}

/** Pieces are moved in larger steps on a sheet than parts on a piece. */
const ON_SHEETS = 10;

interface Held {
  place: number;
  matrix: Matrix;
  /** Where the pointer took it, mm; nothing while keys move it. */
  from: { x: number; y: number; matrix: Matrix } | null;
}

function OneSheet({ run, layout, k, rows, shapes, stock, onChoose }: Omit<Props, "chosen"> & { k: number }) {
  const id = useId();
  const stage = useRef<SVGSVGElement>(null);
  const { choices, faults } = layout;
  const { width, height } = choices;
  const sheet = layout.sheets[k]!;
  const offcut = choices.offcuts.find(({ id }) => id === sheet.offcut);
  const left = useMemo(() => (offcut ? outlineOf(offcut) : null), [offcut]);
  const [held, setHeld] = useState<Held | null>(null);
  const [taken, setTaken] = useState<number | null>(null);
  // What was moved is shown there until the server has it.
  const [waiting, setWaiting] = useState<ReadonlyMap<number, Matrix>>(new Map());
  // biome-ignore lint/correctness/useExhaustiveDependencies: another layout has come
  useEffect(() => setWaiting(new Map()), [sheet]);

  const outlines = useMemo(
    () =>
      sheet.pieces.map(({ row }) => {
        const known = rows.get(row);
        const shape = known && shapes.get(shapeKey(known));
        return shape ? { region: unpackRegion(shape.held), engraved: unpackRegion(shape.engraved) } : null;
      }),
    [sheet, rows, shapes],
  );
  const matrixOf = (place: number): Matrix =>
    held?.place === place ? held.matrix : (waiting.get(place) ?? (sheet.pieces[place]!.matrix as Matrix));
  const inPlace = (place: number): Region | null => {
    const outline = outlines[place];
    return outline ? transformRegion(outline.region, matrixOf(place)) : null;
  };
  const wrong = useMemo(() => new Set(faults.filter(({ sheet }) => sheet === k).flatMap(({ places }) => places)), [faults, k]);
  // What the server has not looked at yet is looked at here.
  const unproved = new Set([...waiting.keys(), ...(held ? [held.place] : [])]);
  const near = new Set<number>();
  for (const place of unproved) {
    const region = inPlace(place);
    if (!region) continue;
    const others = sheet.pieces.map((_, i) => (i === place ? null : inPlace(i)));
    const { places, beyond } = findTouched(region, others, choices, left);
    for (const other of places) near.add(other);
    if (beyond || places.length > 0) near.add(place);
  }
  const isRed = (place: number) => (unproved.size > 0 ? near.has(place) : wrong.has(place));

  const at = (event: PointerEvent) => {
    const box = stage.current!.getBoundingClientRect();
    const scale = width / box.width;
    return { x: (event.clientX - box.left) * scale, y: height - (event.clientY - box.top) * scale };
  };
  const put = (place: number, matrix: Matrix, pinned = true) => {
    setWaiting((before) => new Map(before).set(place, matrix));
    setHeld(null);
    movePlaces(run, [{ sheet: k, place, matrix: [...matrix], pinned }]).catch((error: Error) => {
      setWaiting(new Map());
      toast.error(error.message);
    });
  };
  const turn = (place: number) => {
    const box = regionBox(inPlace(place) ?? []);
    if (box) put(place, turnPlace(matrixOf(place), box));
  };
  const toOther = (place: number, to: number) => {
    setTaken(null);
    void moveToSheet(run, { sheet: k, place, to }).then(
      () => onChoose(Math.min(to, layout.sheets.length - (sheet.pieces.length === 1 ? 1 : 0))),
      (error: Error) => toast.error(error.message),
    );
  };
  const pin = (place: number) => put(place, matrixOf(place), !sheet.pieces[place]!.pinned);

  const onKeyDown = (event: KeyboardEvent, place: number) => {
    const nudge = nudgeOf(event);
    if (nudge) {
      event.preventDefault();
      setHeld({ place, matrix: shiftPlace(matrixOf(place), nudge.dx * ON_SHEETS, nudge.dy * ON_SHEETS), from: null });
    } else if (event.key === "r" || event.key === "R") turn(place);
    else if (event.key === "p" || event.key === "P") pin(place);
    else if (event.key === "Escape") setHeld(null);
    else if (event.key === "Enter" && held) put(place, held.matrix);
  };
  const look = lookOf(stock);
  return (
    <>
      <div className="mb-1.5 flex h-8 items-center justify-between gap-3">
        <h3 className="min-w-0 truncate font-display text-[15px] font-semibold">
          Sheet {k + 1}
          {offcut && <span className="font-normal text-quiet">, {offcut.name}</span>}
        </h3>
        {taken !== null && sheet.pieces[taken] ? (
          <span className="flex items-center gap-1 text-[13px]">
            <b className="mr-2 max-w-[200px] truncate">{nameAt(taken)}</b>
            <SmallButton onClick={() => turn(taken)}>
              <RotateCw size={14} className="-scale-x-100" aria-hidden="true" /> Turn
            </SmallButton>
            <SmallButton onClick={() => pin(taken)}>
              <Pin size={14} aria-hidden="true" /> {sheet.pieces[taken].pinned ? "Unpin" : "Pin"}
            </SmallButton>
            <OtherSheet count={layout.sheets.length} k={k} onMove={(to) => toOther(taken, to)} />
          </span>
        ) : (
          <span className="text-[13px] text-quiet">Take a piece to move, turn or pin it.</span>
        )}
      </div>
      <svg
        ref={stage}
        viewBox={`0 ${-height} ${width} ${height}`}
        className="w-full touch-none"
        role="group"
        aria-label={`Pieces on sheet ${k + 1}`}
        onPointerDown={() => onChoose(k)}
        onPointerMove={(event) => {
          if (!held?.from) return;
          const { x, y } = at(event);
          setHeld({ ...held, matrix: shiftPlace(held.from.matrix, x - held.from.x, y - held.from.y) });
        }}
        onPointerUp={() => {
          if (!held?.from) return;
          const { matrix } = held.from;
          if (held.matrix[4] === matrix[4] && held.matrix[5] === matrix[5]) setHeld(null);
          else put(held.place, held.matrix);
        }}
      >
        <defs>
          <MaterialPattern id={id} sheet={stock} />
        </defs>
        {left ? (
          <path
            d={regionPath(left)}
            transform="scale(1 -1)"
            fill={`url(#${CSS.escape(id)})`}
            opacity={0.38 * (look.opacity ?? 1)}
            fillRule="evenodd"
          />
        ) : (
          <rect
            x={0}
            y={-height}
            width={width}
            height={height}
            fill={`url(#${CSS.escape(id)})`}
            opacity={0.38 * (look.opacity ?? 1)}
          />
        )}
        {!left && (
          <rect
            x={choices.margin}
            y={-height + choices.margin}
            width={Math.max(0, width - 2 * choices.margin)}
            height={Math.max(0, height - 2 * choices.margin)}
            fill="none"
            stroke="var(--color-quiet)"
            strokeWidth={0.6}
            strokeDasharray="2 4"
            vectorEffect="non-scaling-stroke"
          />
        )}
        <g transform="scale(1 -1)">
          {sheet.pieces.map(({ row, copy, pinned }, place) => {
            const outline = outlines[place];
            if (!outline) return null;
            return (
              <g
                key={`${row} ${copy}`}
                role="button"
                tabIndex={0}
                aria-label={`${place + 1}: ${nameAt(place)}${pinned ? ", pinned" : ""}${isRed(place) ? ", too near" : ""}`}
                aria-pressed={taken === place}
                className="cursor-grab outline-none focus-visible:[&_path]:stroke-focus"
                onFocus={() => setTaken(place)}
                onBlur={() => held && !held.from && held.place === place && put(place, held.matrix)}
                onPointerDown={(event) => {
                  stage.current!.setPointerCapture(event.pointerId);
                  setTaken(place);
                  setHeld({ place, matrix: matrixOf(place), from: { ...at(event), matrix: matrixOf(place) } });
                }}
                onKeyDown={(event) => onKeyDown(event, place)}
              >
                <PieceOnSheet
                  {...outline}
                  at={matrixOf(place).join(" ")}
                  pattern={id}
                  stock={stock}
                  red={isRed(place)}
                  taken={taken === place}
                />
              </g>
            );
          })}
        </g>
        {sheet.pieces.map(({ row, copy, pinned }, place) => {
          const box = regionBox(inPlace(place) ?? []);
          return (
            box && (
              <text
                key={`${row} ${copy}`}
                x={(box.minX + box.maxX) / 2}
                y={-(box.minY + box.maxY) / 2}
                fontSize={width / 55}
                textAnchor="middle"
                dominantBaseline="middle"
                className="figure pointer-events-none fill-ink stroke-film [paint-order:stroke]"
                strokeWidth={width / 180}
                aria-hidden="true"
              >
                {pinned ? `${place + 1} •` : place + 1}
              </text>
            )
          );
        })}
      </svg>
    </>
  );

  function nameAt(place: number): string {
    const row = rows.get(sheet.pieces[place]!.row);
    return row ? nameOf(row) : "";
  }
}

/** Another sheet for the piece in the hand, or a new one. */
function OtherSheet({ count, k, onMove }: { count: number; k: number; onMove(to: number): void }) {
  return (
    <select
      aria-label="Move it to another sheet"
      value=""
      onChange={(event) => onMove(Number(event.target.value))}
      className="h-8 rounded-full bg-transparent px-2 text-[13px] hover:bg-ink/8"
    >
      <option value="" disabled hidden>
        To sheet …
      </option>
      {Array.from({ length: count + 1 }, (_, to) => to)
        .filter((to) => to !== k)
        .map((to) => (
          <option key={to} value={to}>
            {to === count ? "a new sheet" : `sheet ${to + 1}`}
          </option>
        ))}
    </select>
  );
}

function SmallButton(props: { onClick(): void; children: React.ReactNode }) {
  return <button type="button" className="inline-flex h-8 items-center gap-1.5 rounded-full px-3 hover:bg-ink/8" {...props} />;
}

interface PieceProps {
  region: Region;
  engraved: Region;
  /** Its matrix, as text. */
  at: string;
  pattern: string;
  stock: SheetLook;
  red: boolean;
  taken: boolean;
}

/** Drawn where it lies: the grain is the sheet's, however the piece is turned. */
const PieceOnSheet = memo(function PieceOnSheet({ region, engraved, at, pattern, stock, red, taken }: PieceProps) {
  const look = lookOf(stock);
  const paths = useMemo(() => {
    const matrix = at.split(" ").map(Number) as unknown as Matrix;
    return { cut: regionPath(transformRegion(region, matrix)), engraved: regionPath(transformRegion(engraved, matrix)) };
  }, [region, engraved, at]);
  return (
    <>
      <path
        d={paths.cut}
        fill={`url(#${CSS.escape(pattern)})`}
        fillOpacity={look.opacity ?? 1}
        stroke={red ? "var(--color-falls)" : taken ? "var(--color-ink)" : look.edge}
        strokeWidth={red || taken ? 2 : 0.9}
        strokeDasharray={red ? "4 2" : undefined}
        vectorEffect="non-scaling-stroke"
        fillRule="evenodd"
      />
      {paths.engraved && <path d={paths.engraved} fill={look.edge} fillOpacity={0.55} fillRule="evenodd" />}
    </>
  );
});
