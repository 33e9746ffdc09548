/**
 * Bring in: a drawing or a picture from elsewhere becomes a part of the piece.
 */
import { joinBoxes } from "@mend-joint/core/geometry";
import { type DrawingPart, formatLength, type Piece } from "@mend-joint/core/piece";
import { describeBroughtIn, describeChosen, describeLeftOut } from "@mend-joint/core/wording";
import { FileUp } from "lucide-react";
import { Dialog } from "radix-ui";
import { useEffect, useMemo, useState } from "react";
import { toast } from "sonner";
import { create } from "zustand";
import { fetchPicture } from "../state/api";
import { useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { LengthField } from "../ui/LengthField";
import { Two } from "../ui/Two";
import type { Chosen, Found } from "../workers/bringing";
import { chooseOutlines } from "../workers/examiner";
import { OutlineShelf, widthOfOutline } from "./OutlineShelf";
import { Outlines } from "./Outlines";
import { letteringBox, putOnPiece, replaceOutline, widthOfDrawing } from "./put";
import { TraceFields } from "./TraceFields";
import { choicesOf, keepTraced, tracingOf } from "./traced";
import { type TraceChoices, USUAL, useFound } from "./useFound";

interface Sheet {
  pieceId: string | null;
  file: File | null;
  /** The drawing that is traced again, with its picture as the file. */
  again: DrawingPart | null;
}

/** For which piece the sheet is open, and with which file: it does not wait for another piece. */
const useSheet = create<Sheet>(() => ({ pieceId: null, file: null, again: null }));

/** Opens the sheet. @param file brought already, by drop or paste @param pieceId of the piece that is on the bench, or comes there next */
export function bringIn(file: File | null = null, pieceId: string | null = usePiece.getState().piece?.id ?? null): void {
  useSheet.setState({ pieceId, file, again: null });
}
const close = () => useSheet.setState({ pieceId: null, file: null, again: null });

/** Opens the sheet with the picture that a drawing was traced from, and what was chosen then. */
export async function traceDrawingAgain(drawing: DrawingPart): Promise<void> {
  const pieceId = usePiece.getState().piece?.id ?? null;
  if (!drawing.traced) return;
  try {
    const file = await fetchPicture(drawing.traced.picture, drawing.name);
    if (usePiece.getState().piece?.id === pieceId) useSheet.setState({ pieceId, file, again: drawing });
  } catch (error) {
    toast.error((error as Error).message);
  }
}

const KINDS = ".svg,.dxf,.pdf,.png,.jpg,.jpeg,.webp,.gif,.bmp,image/*";

export function BringIn() {
  const { pieceId, file, again } = useSheet();
  const piece = usePiece((state) => state.piece);
  if (!piece || piece.id !== pieceId) return null;
  return (
    <Dialog.Root open onOpenChange={(next) => !next && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-4 z-20 mx-auto flex max-w-[1180px] flex-col overflow-hidden rounded-2xl bg-film shadow-xl sm:inset-8"
          onDragOver={(event) => event.preventDefault()}
          onDrop={(event) => {
            event.preventDefault();
            const [dropped] = event.dataTransfer.files;
            if (dropped) bringIn(dropped);
          }}
        >
          <header className="flex items-center justify-between gap-4 border-b border-rule px-6 py-3">
            <Dialog.Title className="font-display text-[20px] font-semibold">
              {again ? `Trace ${again.name} again` : "Bring in a drawing or a picture"}
            </Dialog.Title>
            {file && !again && <FileChoice text="Another file" />}
          </header>
          {file ? (
            <Opened key={`${file.name} ${file.lastModified} ${file.size}`} file={file} piece={piece} again={again} />
          ) : (
            <Nothing />
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function FileChoice({ text, strong }: { text: string; strong?: boolean }) {
  return (
    <label
      className={`inline-flex cursor-pointer items-center gap-2 rounded-full border px-4 py-2 text-[14px] focus-within:outline-2 focus-within:outline-focus ${strong ? "border-ink bg-ink text-film" : "border-quiet/40 hover:border-ink"}`}
    >
      <FileUp size={16} aria-hidden="true" /> {text}
      <input
        type="file"
        accept={KINDS}
        className="sr-only"
        onChange={(event) => {
          const [picked] = event.target.files ?? [];
          if (picked) bringIn(picked);
        }}
      />
    </label>
  );
}

function Nothing() {
  return (
    <div className="flex flex-1 flex-col items-center gap-4 overflow-y-auto p-8 text-center">
      <p className="max-w-[46ch]">
        A drawing (SVG, DXF, PDF) comes in with its own curves. A picture (PNG, JPEG, WebP, GIF, BMP) is traced: a dark shape on a
        plain background does best.
      </p>
      <FileChoice text="Choose a file" strong />
      <p className="text-[13px] text-quiet">Or drop one here, or paste a picture or an SVG.</p>
      <OutlineShelf
        onPick={(kept) => {
          const width = widthOfOutline(kept.outline, kept.height);
          if (width === null) return;
          putOnPiece({ outline: kept.outline, width, height: kept.height }, kept.name);
          close();
        }}
      />
      <Button look="quiet" onClick={close}>
        Cancel
      </Button>
    </div>
  );
}

function Opened({ file, piece, again }: { file: File; piece: Piece; again: DrawingPart | null }) {
  const units = useBench((state) => state.units);
  const [lineWidth, setLineWidth] = useState<number | null>(null);
  const [broad, setBroad] = useState(false);
  const [choices, setChoices] = useState<TraceChoices>(() => (again?.traced ? choicesOf(again.traced) : USUAL));
  const [background, setBackground] = useState<{ x: number; y: number } | null>(again?.traced?.background ?? null);
  const [picking, setPicking] = useState(false);
  const { reading, busy, isTraced } = useFound(
    file,
    { lineWidth: lineWidth ?? undefined, broad },
    choices,
    background,
    again?.traced?.pixel,
  );
  const found = reading.now === "found" ? reading.found : null;
  const [chosen, setChosen] = useChoice(found);
  const [width, setWidth] = useState<number | null>(null);
  const [name, setName] = useState(() => again?.name ?? (file.name.replace(/\.\w+$/, "").slice(0, 80) || "drawing"));
  const own = widthOf(found, chosen);
  const picture = reading.now === "found" ? reading.picture : null;
  const wide = width ?? (again ? widthOfDrawing(again) : startWidth(own, isTraced && !picture?.dpi, piece));
  const { facts, fault, current } = useFacts(found, chosen, wide, piece);
  const openLines = found?.told.some(({ what }) => what === "open" || what === "given width") ?? false;
  const allOpen = reading.now === "refused" && reading.openLines;
  return (
    <div className="grid min-h-0 flex-1 grid-rows-[minmax(200px,1fr)_auto] sm:grid-cols-[minmax(0,1fr)_320px] sm:grid-rows-1">
      <div className="relative min-h-0 bg-bench p-4" aria-busy={busy}>
        {found && (
          <Outlines
            found={found}
            chosen={chosen}
            picture={picture && { ...picture.picture, url: picture.url, turn: choices.turn }}
            onBackground={
              picking
                ? (at) => {
                    setBackground(at);
                    setPicking(false);
                  }
                : null
            }
            onToggle={(i) => setChosen(toggled(chosen, i))}
            onBand={(around, take) => setChosen(withAll(chosen, around, take))}
          />
        )}
        {reading.now === "reading" && (
          <p className="absolute inset-0 grid place-items-center text-quiet">Reading {file.name} …</p>
        )}
        {reading.now === "refused" && (
          <p role="alert" className="absolute inset-0 m-auto grid max-w-[44ch] place-items-center p-6 text-center text-falls">
            {reading.why}.
          </p>
        )}
      </div>
      <div className="flex min-h-0 flex-col gap-5 overflow-y-auto border-rule p-5 sm:border-l">
        <label className="block text-[13px] text-quiet">
          Name
          <input
            value={name}
            maxLength={80}
            onChange={(event) => setName(event.target.value)}
            className="mt-0.5 w-full border-b border-quiet/50 bg-transparent py-1 text-[15px] text-ink outline-none focus:border-ink"
          />
        </label>
        {isTraced && (
          <TraceFields
            choices={choices}
            onChange={setChoices}
            threshold={found?.traced?.threshold ?? null}
            level={found?.traced?.level ?? null}
            dpi={picture && Math.round(25.4 / picture.pixel)}
            picking={picking}
            onPick={() => setPicking(!picking)}
          />
        )}
        {typeof found?.broadest === "number" && (
          <Choice
            label={`Lines, drawn up to ${formatLength(found.broadest, units)} wide`}
            value={found.broad ? "drawn" : "outlines"}
            options={[
              { value: "outlines", text: "As outlines" },
              { value: "drawn", text: "As wide as drawn" },
            ]}
            onChange={(how) => setBroad(how === "drawn")}
          />
        )}
        {(openLines || allOpen) && (
          <LengthField
            label="Open lines get a width of"
            value={lineWidth ?? 0}
            least={0}
            most={50}
            step={0.5}
            hint="0 leaves them out"
            onChange={(mm) => setLineWidth(mm > 0 ? mm : null)}
          />
        )}
        {found && found.outlines.length > 1 && (
          <div>
            <span className="block text-[13px] text-quiet">
              Outlines taken: {chosen.size} of {found.outlines.length}
            </span>
            <div className="mt-1 flex flex-wrap gap-1">
              <Button className="h-8 px-3" onClick={() => setChosen(allOf(found))}>
                All
              </Button>
              <Button className="h-8 px-3" onClick={() => setChosen(largestOf(found))}>
                The largest
              </Button>
              <Button className="h-8 px-3" onClick={() => setChosen(withoutHoles(found))}>
                Without holes
              </Button>
            </div>
            <p className="mt-1 text-[12px] text-quiet">
              Press one to leave it out or take it; draw a band around several to take them, with Alt to leave them out.
            </p>
          </div>
        )}
        {facts && (
          <Two>
            <LengthField label="Width" value={wide} least={1} most={1000} step={1} onChange={setWidth} />
            <LengthField
              label="Height"
              value={Math.round((wide * facts.height * 100) / facts.width) / 100}
              least={1}
              most={1000}
              step={1}
              onChange={(mm) => setWidth((mm * facts.width) / facts.height)}
            />
          </Two>
        )}
        <ul className="flex flex-col gap-1 text-[13px] text-quiet" aria-live="polite">
          {facts && describeChosen(facts, units).map((line) => <li key={line}>{line}</li>)}
          {found?.told.map((told) => (
            <li key={told.what}>{describeBroughtIn(told)}</li>
          ))}
          {found?.traced && found.traced.left.specks + found.traced.left.holes > 0 && (
            <li>{describeLeftOut(found.traced.left)}</li>
          )}
          {found?.notes.map((note) => (
            <li key={note}>{note}.</li>
          ))}
          {picture?.dpi && own !== null && width === null && !again && (
            <li>
              It has the picture’s own size, {formatLength(own, units)} wide at {picture.dpi} pixels to the inch.
            </li>
          )}
          {own !== null && !isTraced && width === null && <li>It has the file’s own size, {formatLength(own, units)} wide.</li>}
          {fault && (
            <li role="alert" className="text-falls">
              {fault}.
            </li>
          )}
        </ul>
        <div className="mt-auto flex gap-2 pt-2">
          <Button
            look="strong"
            disabled={!facts || !current || busy || name.trim() === ""}
            onClick={() => {
              if (!facts) return;
              const tracing = picture && tracingOf(choices, picture, background, again?.traced?.picture);
              if (again) replaceOutline(again, facts, name.trim(), tracing);
              else putOnPiece(facts, name.trim(), tracing);
              if (tracing && !again) void keepTraced(file, tracing);
              close();
            }}
          >
            {again ? "Take this outline" : "Put it on the piece"}
          </Button>
          <Button look="quiet" onClick={close}>
            Cancel
          </Button>
        </div>
      </div>
    </div>
  );
}

const allOf = ({ outlines }: Found) => new Set(outlines.keys());
const withoutHoles = ({ outlines }: Found) => new Set([...outlines.keys()].filter((i) => !outlines[i]!.hole));
/** The largest outline, and its holes are left to be pressed. */
const largestOf = ({ outlines }: Found) =>
  new Set([[...outlines.keys()].reduce((best, i) => (outlines[i]!.area > outlines[best]!.area ? i : best), 0)]);

function toggled(chosen: ReadonlySet<number>, i: number): Set<number> {
  const next = new Set(chosen);
  if (!next.delete(i)) next.add(i);
  return next;
}

function withAll(chosen: ReadonlySet<number>, around: readonly number[], take: boolean): Set<number> {
  const next = new Set(chosen);
  for (const i of around) {
    if (take) next.add(i);
    else next.delete(i);
  }
  return next;
}

/** All outlines of what has been found, until the maker chooses. */
function useChoice(found: Found | null): [ReadonlySet<number>, (next: ReadonlySet<number>) => void] {
  const [own, setOwn] = useState<{ of: Found; chosen: ReadonlySet<number> } | null>(null);
  const all = useMemo(() => (found ? allOf(found) : new Set<number>()), [found]);
  // Outlines that were found anew are others.
  const chosen = own && found && own.of.outlines.length === found.outlines.length ? own.chosen : all;
  return [chosen, (next) => found && setOwn({ of: found, chosen: next })];
}

/** How wide the chosen outlines are as drawn, mm; `null` for none. */
function widthOf(found: Found | null, chosen: ReadonlySet<number>): number | null {
  const box = joinBoxes([...chosen].map((i) => found?.outlines[i]?.box ?? null));
  return box && box.maxX - box.minX;
}

/** A picture has no size of its own: it begins as wide as the lettering. */
function startWidth(own: number | null, isTraced: boolean, { limit }: Piece): number {
  const box = letteringBox();
  const lettering = box ? box.maxX - box.minX : 80;
  const wide = own === null || isTraced ? Math.max(10, Math.round(lettering)) : own;
  return Math.min(1000, limit?.width ?? 1000, Math.round(wide * 100) / 100);
}

interface Facts {
  facts: Chosen | null;
  fault: string;
  /** What they were asked for. */
  found: Found | null;
  chosen: ReadonlySet<number> | null;
  width: number;
}

/**
 * What the chosen outlines would be, asked for anew with every choice. Until that is answered the last answer is still shown, and is not that
 * of now: nothing may be made of it.
 */
function useFacts(found: Found | null, chosen: ReadonlySet<number>, width: number, piece: Piece) {
  const [state, setState] = useState<Facts>({ facts: null, fault: "", found: null, chosen: null, width: 0 });
  useEffect(() => {
    let gone = false;
    const answer = (facts: Chosen | null, fault: string) => !gone && setState({ facts, fault, found, chosen, width });
    // What is still to be fitted is not chosen from yet.
    if (!found) answer(null, "");
    else if (!found.rough) {
      chooseOutlines([...chosen], width, piece).then(
        (facts) => answer(facts, ""),
        (error: Error) => answer(null, error.message),
      );
    }
    return () => {
      gone = true;
    };
  }, [found, chosen, width, piece]);
  const current = state.found === found && state.chosen === chosen && state.width === width;
  return { facts: state.facts, fault: state.fault, current };
}
