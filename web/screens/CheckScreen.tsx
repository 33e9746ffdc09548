/**
 * Any outline file on trial: what falls out, what is thin, what lies twice or open; and the file put right.
 */
import type { CheckedDrawing } from "@mend-joint/core";
import { PROFILES } from "@mend-joint/core/cut";
import { sourceInSvg } from "@mend-joint/core/formats";
import type { Finding } from "@mend-joint/core/judge";
import { formatLength, formatNumber, type Piece, parsePiece, STOCKS, type Stock } from "@mend-joint/core/piece";
import { labelsOf } from "@mend-joint/core/report";
import { describeFinding, describeMarks, describeRepair } from "@mend-joint/core/wording";
import { ArrowLeft, FileUp } from "lucide-react";
import { useCallback, useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { toast } from "sonner";
import { UnitsSwitch } from "../bench/TopBar";
import { CheckedStage } from "../cut/CheckedStage";
import { createPiece } from "../state/api";
import { useBench } from "../state/bench";
import { fetchProfiles, profileOf, useCutting } from "../state/cutting";
import { useSheets } from "../state/stocks";
import { Button } from "../ui/Button";
import { download } from "../ui/download";
import { Pick } from "../ui/Pick";
import { ThreeColumns } from "../ui/ThreeColumns";
import { useGoOn } from "../ui/useGoOn";
import { VerdictMark } from "../ui/VerdictMark";
import { checkFile, repairFile, stopChecking } from "../workers/examiner";

interface Given {
  name: string;
  bytes: Uint8Array;
  /** The piece that an SVG of our own carries. */
  piece: Piece | null;
}

type State =
  | { now: "waiting" }
  | { now: "checking"; stage: string }
  | { now: "refused"; why: string }
  | { now: "checked"; checked: CheckedDrawing };

const SENTENCES: Record<CheckedDrawing["examination"]["verdict"], string> = {
  holds: "Everything holds.",
  weak: "It holds together, but not everywhere as it should.",
  falls: "Something falls out.",
};

export function CheckScreen() {
  const [given, setGiven] = useState<Given | null>(null);
  const sheets = useSheets();
  const [stock, setStock] = useState<Stock>(STOCKS[0]!);
  const { state, run, stop } = useCheck();
  const profile = profileOf(useCutting());
  const own = useCutting((each) => each.own);
  const [pointed, setPointed] = useState<Finding | null>(null);

  useEffect(() => {
    fetchProfiles().catch((error: Error) => toast(error.message));
  }, []);
  useEffect(() => {
    setPointed(null);
    if (given) void run(given.bytes, stock, profile);
  }, [given, stock, profile, run]);

  const take = async (file: File | undefined) => {
    if (!file) return;
    const bytes = new Uint8Array(await file.arrayBuffer());
    setGiven({ name: file.name, bytes, piece: pieceIn(bytes) });
  };

  return (
    <div
      className="grid h-full grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        void take(event.dataTransfer.files[0]);
      }}
    >
      <header className="flex h-[52px] items-center gap-2 border-b border-rule px-4">
        <Link
          to="/"
          aria-label="Back to the rack"
          title="Back to the rack"
          className="grid size-9 place-items-center rounded-full hover:bg-ink/8"
        >
          <ArrowLeft size={18} />
        </Link>
        <h1 className="min-w-0 truncate font-display text-[18px] font-semibold">{given ? given.name : "Check a file"}</h1>
        <span className="flex-1" />
        <UnitsSwitch />
        <FileButton look={given ? "plain" : "strong"} onFile={(file) => void take(file)} />
      </header>
      {!given ? (
        <main className="grid place-items-center px-6">
          <div className="max-w-[520px] text-center">
            <FileUp size={34} className="mx-auto text-quiet" aria-hidden="true" />
            <h2 className="mt-4 font-display text-[24px] leading-tight font-semibold">Drop an SVG, DXF or PDF here.</h2>
            <p className="mt-3 text-[15px] text-quiet">
              Wherever it was drawn, it is measured like your own pieces: what falls out, what is thin, what lies twice, what is
              open, how large it is. Nothing leaves this computer.
            </p>
          </div>
        </main>
      ) : (
        <ThreeColumns
          widths="check"
          middle={{
            className: "relative bg-film",
            children: (
              <>
                {state.now === "checking" && (
                  <div className="grid h-full place-items-center">
                    <div className="text-center">
                      <p className="text-[16px] text-quiet">{state.stage} …</p>
                      <Button className="mt-3" onClick={stop}>
                        Stop
                      </Button>
                    </div>
                  </div>
                )}
                {state.now === "refused" && (
                  <p
                    role="alert"
                    className="grid h-full place-items-center px-12 text-center font-display text-[20px] text-falls"
                  >
                    {state.why}
                  </p>
                )}
                {state.now === "checked" && (
                  <CheckedStage examination={state.checked.examination} sheet={stock} pointed={pointed} />
                )}
              </>
            ),
          }}
          right={{
            label: "What was found",
            className: "flex flex-col gap-5 px-5 py-4 md:overflow-y-auto",
            children: (
              <>
                <div className="grid grid-cols-2 gap-4">
                  <Pick
                    label="Cut from"
                    value={stock.id}
                    options={sheets.map(({ id, stock: { name } }) => ({ value: id, text: name }))}
                    onChange={(id) => setStock(sheets.find((each) => each.id === id)!.stock)}
                  />
                  <Pick
                    label="Colours as for"
                    value={profile.id}
                    options={[...PROFILES, ...own].map(({ id, name }) => ({ value: id, text: name }))}
                    onChange={(profileId) => useCutting.setState({ profileId })}
                  />
                </div>
                {state.now === "checked" && <Found checked={state.checked} given={given} stock={stock} onPoint={setPointed} />}
              </>
            ),
          }}
        />
      )}
    </div>
  );
}

/** The piece in an SVG of our own; anything else carries none. */
function pieceIn(bytes: Uint8Array): Piece | null {
  try {
    const source = sourceInSvg(new TextDecoder().decode(bytes.subarray(0, 2_000_000)));
    return source === null ? null : parsePiece(source);
  } catch {
    return null;
  }
}

function useCheck() {
  const [state, setState] = useState<State>({ now: "waiting" });
  const latest = useRef(0);
  const run = useCallback(
    async (...[bytes, stock, profile]: Parameters<typeof checkFile> extends [...infer A, unknown] ? A : never) => {
      const own = ++latest.current;
      const tell = (next: State) => own === latest.current && setState(next);
      tell({ now: "checking", stage: STAGES.reading! });
      try {
        const checked = await checkFile(bytes, stock, profile, (stage) =>
          tell({ now: "checking", stage: STAGES[stage] ?? stage }),
        );
        tell({ now: "checked", checked });
      } catch (error) {
        tell({ now: "refused", why: (error as Error).message });
      }
    },
    [],
  );
  const stop = () => {
    latest.current++;
    stopChecking();
    setState({ now: "refused", why: "The check was stopped." });
  };
  return { state, run, stop };
}

const STAGES: Record<string, string> = {
  reading: "Reading the file",
  outlines: "Sorting the outlines",
  weld: "Welding",
  measure: "Measuring widths",
  joints: "Following the joints",
  judge: "Looking for trouble",
  report: "Drawing up",
};

interface FoundProps {
  checked: CheckedDrawing;
  given: Given;
  stock: Stock;
  onPoint(finding: Finding | null): void;
}

function Found({ checked, given, stock, onPoint }: FoundProps) {
  const units = useBench((state) => state.units);
  const profile = profileOf(useCutting());
  const goOn = useGoOn();
  const { examination, repairs, marks, as } = checked;
  const labels = labelsOf(examination);
  const notes = marks > 0 ? [...checked.notes, describeMarks(marks)] : checked.notes;
  const { box, cutouts, verdict, findings, thinnest } = examination;
  const attempt = async (work: () => Promise<void>) => {
    try {
      await work();
    } catch (error) {
      toast.error((error as Error).message);
    }
  };
  const takeRepaired = () =>
    attempt(async () => {
      const file = await repairFile(checked, given.name.replace(/\.[^.]+$/, ""), stock, profile);
      download(file.name, file.type, file.bytes);
    });
  const openPiece = () =>
    attempt(async () => {
      const stored = await createPiece(given.piece!);
      await goOn(`/bench/${stored.id}`);
    });
  return (
    <>
      <div className="flex items-start gap-3" data-testid="verdict">
        <VerdictMark verdict={verdict} size={28} />
        <p className="font-display text-[19px] leading-tight font-semibold">{SENTENCES[verdict]}</p>
      </div>
      <dl className="grid grid-cols-[1fr_auto] gap-y-1 text-[14px]">
        <dt className="text-quiet">Size</dt>
        <dd className="figure">
          {box ? `${formatNumber(box.maxX - box.minX, units)} × ${formatLength(box.maxY - box.minY, units)}` : "none"}
        </dd>
        <dt className="text-quiet">Separate pieces</dt>
        <dd className="figure text-right">{cutouts.length}</dd>
        <dt className="text-quiet">Thinnest place</dt>
        <dd className="figure text-right">{thinnest ? formatLength(thinnest, units, 2) : "none"}</dd>
      </dl>
      <p className="text-[12px] text-quiet">
        {as === "lines"
          ? "Read as cut lines: what lies inside another outline is a hole."
          : "Read as shapes: each is a part, and those that overlap join."}
      </p>
      {given.piece && (
        <div className="rounded-xl border border-rule p-3 text-[13px]">
          <p>It carries the piece “{given.piece.name}”, words and all.</p>
          <Button className="mt-2" onClick={() => void openPiece()}>
            Put it on the rack and open it
          </Button>
        </div>
      )}
      <ol className="flex flex-col">
        {findings.map((finding) => (
          <li key={`${finding.kind} ${finding.at.x} ${finding.at.y} ${finding.parts.join(" ")}`}>
            <button
              type="button"
              className="flex w-full items-start gap-2 border-t border-rule py-2 text-left text-[14px] hover:bg-ink/5"
              onClick={() => onPoint(finding)}
              onFocus={() => onPoint(finding)}
              onPointerEnter={() => onPoint(finding)}
            >
              <span className="shrink-0">
                <VerdictMark verdict={finding.means} size={20} />
              </span>
              <span>{describeFinding(finding, labels, units)}</span>
            </button>
          </li>
        ))}
      </ol>
      {repairs.length > 0 && (
        <div className="text-[13px]">
          <p className="text-quiet">
            Put right in the repaired file: {repairs.map((repair) => describeRepair(repair, units)).join("; ")}.
          </p>
          <Button className="mt-2" onClick={() => void takeRepaired()}>
            Take the repaired SVG
          </Button>
        </div>
      )}
      {notes.map((note) => (
        <p key={note} className="text-[13px] text-quiet">
          {note}.
        </p>
      ))}
    </>
  );
}

function FileButton({ look, onFile }: { look: "plain" | "strong"; onFile(file: File | undefined): void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".svg,.dxf,.pdf"
        aria-label="Outline file"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          onFile(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      <Button look={look} onClick={() => input.current?.click()}>
        Choose a file
      </Button>
    </>
  );
}
