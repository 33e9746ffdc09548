import { type Piece, STARTERS } from "@mend-joint/core/piece";
import { linesOf, type SizeRule } from "@mend-joint/core/runs";
import { ArrowLeft } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { Link } from "react-router";
import { toast } from "sonner";
import { UnitsSwitch } from "../bench/TopBar";
import { ListField } from "../runs/ListField";
import { SizeRuleField } from "../runs/SizeRuleField";
import { useListed } from "../runs/useListed";
import { Thumbnail } from "../stage/Thumbnail";
import { listPieces } from "../state/api";
import { createRun, listRuns, type WantedDesign } from "../state/runs";
import { Button } from "../ui/Button";
import { Toggle } from "../ui/Toggle";
import { useGoOn } from "../ui/useGoOn";
import { useInSight } from "../ui/useInSight";
import { VerdictMark } from "../ui/VerdictMark";
import { beginWith, beginWithOwn } from "../workers/examiner";

type Made = Awaited<ReturnType<typeof beginWith>>;

/** Something that a list can be made of. */
interface Offer {
  id: string;
  name: string;
  note: string;
  lines: number;
  wanted: WantedDesign;
  make(texts: readonly string[]): Promise<Made>;
}

const SHIPPED: readonly Offer[] = STARTERS.map(({ id, name, note, lines }) => ({
  id: `starter ${id}`,
  name,
  note,
  lines,
  wanted: { starter: id },
  make: (texts) => beginWith(id, texts, false),
}));

const ofPiece = (piece: Piece): Offer => ({
  id: piece.id,
  name: piece.name,
  note: `your own, in ${piece.stock.name}`,
  lines: linesOf({ piece }),
  wanted: { piece: piece.id },
  make: (texts) => beginWithOwn(piece, texts),
});

/** A list goes in on the left; every design in the middle shows its first name. */
export function NewRunScreen() {
  const [own, setOwn] = useState<readonly Offer[]>([]);
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [name, setName] = useState("");
  const [mend, setMend] = useState(true);
  const [size, setSize] = useState<SizeRule>({ by: "design" });
  const [busy, setBusy] = useState(false);
  const goOn = useGoOn();
  const offers = useMemo(() => [...own, ...SHIPPED], [own]);
  const chosen = offers.find(({ id }) => id === chosenId) ?? offers[0]!;
  const listed = useListed(Math.max(1, chosen.lines));
  const { list } = listed;

  useEffect(() => {
    listPieces().then(
      ({ pieces }) => setOwn(pieces.map(({ piece, id }) => ofPiece({ ...piece, id })).filter(({ lines }) => lines > 0)),
      (error: Error) => toast.error(error.message),
    );
    // The threads get ready while the list is typed.
    listRuns().catch(() => {});
  }, []);

  const first = list?.rows.find(({ problem }) => !problem)?.texts ?? ["Isolde", "Kit"];
  const usable = list?.rows.filter(({ problem }) => !problem).length ?? 0;
  const begin = async () => {
    setBusy(true);
    try {
      const title = name.trim() || nameFor(first[0] ?? "", usable);
      const run = { name: title, design: chosen.wanted, list: listed.text, mend, size };
      const { id } = await createRun(listed.columns ? { ...run, columns: listed.columns } : run);
      await goOn(`/runs/${id}`);
    } catch (error) {
      toast.error((error as Error).message);
      setBusy(false);
    }
  };

  return (
    <div className="grid h-full grid-rows-[auto_minmax(0,1fr)]">
      <header className="flex h-[52px] items-center gap-2 border-b border-rule px-4">
        <Link
          to="/runs"
          aria-label="Back to the runs"
          title="Back to the runs"
          className="grid size-9 place-items-center rounded-full hover:bg-ink/8"
        >
          <ArrowLeft size={18} />
        </Link>
        <h1 className="font-display text-[18px] font-semibold">Many names, one design</h1>
        <span className="flex-1" />
        <UnitsSwitch />
      </header>
      <div className="flex min-h-0 flex-col overflow-y-auto md:grid md:grid-cols-[300px_minmax(0,1fr)_280px] md:overflow-visible">
        <ListField listed={listed} lines={Math.max(1, chosen.lines)} />
        <main
          className="shrink-0 border-rule bg-film px-5 py-4 md:min-h-0 md:overflow-y-auto md:border-x"
          aria-label="The design"
        >
          <h2 className="font-display text-[19px] font-semibold">The design</h2>
          <p className="text-[13px] text-quiet">
            {list
              ? `Each shows “${first.filter(Boolean).join(" · ")}”, the first of your names.`
              : "Each shows the first of your names, once there is one."}
          </p>
          <ul className="mt-3 grid grid-cols-[repeat(auto-fill,minmax(min(200px,100%),1fr))] gap-3">
            {offers.map((offer) => (
              <li key={offer.id}>
                <DesignCard offer={offer} texts={first} pressed={offer.id === chosen.id} onChoose={() => setChosenId(offer.id)} />
              </li>
            ))}
          </ul>
        </main>
        <aside className="flex shrink-0 flex-col gap-5 px-5 py-4 md:overflow-y-auto" aria-label="The run">
          <div>
            <h2 className="font-display text-[19px] leading-tight font-semibold">{chosen.name}</h2>
            <p className="text-[13px] text-quiet">{chosen.note}</p>
          </div>
          <label className="block text-[13px] text-quiet">
            What the run is called
            <input
              value={name}
              maxLength={80}
              placeholder={nameFor(first[0] ?? "", usable)}
              onChange={(event) => setName(event.target.value)}
              className="mt-0.5 w-full border-b border-quiet/50 bg-transparent py-1.5 text-[14px] text-ink outline-none placeholder:text-quiet/60 focus:border-ink"
            />
          </label>
          <SizeRuleField size={size} onChange={setSize} />
          <Toggle
            label="Mend what falls or is weak"
            note="Each name by itself; every mend is told."
            on={mend}
            onChange={setMend}
          />
          <Button look="strong" disabled={usable === 0 || busy} onClick={() => void begin()}>
            {usable === 0 ? "Examine the names" : `Examine ${usable.toLocaleString("en")} ${usable === 1 ? "name" : "names"}`}
          </Button>
          {usable === 0 && <p className="-mt-3 text-[13px] text-quiet">Put at least one name into the list first.</p>}
        </aside>
      </div>
    </div>
  );
}

const nameFor = (first: string, usable: number) =>
  usable === 0 ? "New run" : usable === 1 ? first : `${first} and ${usable - 1} more`;

interface CardProps {
  offer: Offer;
  texts: readonly string[];
  pressed: boolean;
  onChoose(): void;
}

function DesignCard({ offer, texts, pressed, onChoose }: CardProps) {
  const [card, inSight] = useInSight<HTMLButtonElement>();
  const made = useMade(offer, texts, inSight);
  return (
    <button
      ref={card}
      type="button"
      aria-pressed={pressed}
      onClick={onChoose}
      className="flex w-full flex-col rounded-2xl border border-rule text-left transition-colors hover:border-quiet aria-pressed:border-ink aria-pressed:ring-1 aria-pressed:ring-ink"
    >
      <span className="block h-[120px] w-full p-4">
        {made && <Thumbnail examination={made.examination} sheet={made.piece.stock} />}
      </span>
      <span className="flex w-full items-end justify-between gap-2 border-t border-rule px-3 py-2">
        <span className="min-w-0">
          <span className="block truncate text-[14px] font-semibold">{offer.name}</span>
          <span className="block truncate text-[12px] text-quiet">{offer.note}</span>
        </span>
        {made && <VerdictMark verdict={made.examination.verdict} size={18} />}
      </span>
    </button>
  );
}

/** A pause in typing before designs are made anew, ms. */
const PAUSE = 350;

/** The design with these words, once it is in sight; the last one stays until there is another. */
function useMade(offer: Offer, texts: readonly string[], inSight: boolean): Made | null {
  const [made, setMade] = useState<Made | null>(null);
  const words = texts.slice(0, Math.max(1, offer.lines)).join("\n");
  useEffect(() => {
    if (!inSight) return;
    let gone = false;
    const timer = setTimeout(() => {
      offer.make(words.split("\n")).then(
        (next) => !gone && setMade(next),
        () => !gone && setMade(null),
      );
    }, PAUSE);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [offer, words, inSight]);
  return made;
}
