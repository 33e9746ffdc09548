import type { Examination } from "@mend-joint/core";
import { formatLength, formatNumber, LIMITS } from "@mend-joint/core/piece";
import { MoreHorizontal, Plus } from "lucide-react";
import { Dialog, DropdownMenu } from "radix-ui";
import { type FormEvent, useCallback, useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import { toast } from "sonner";
import { Thumbnail } from "../stage/Thumbnail";
import {
  type ApiError,
  createPiece,
  deletePiece,
  listPieces,
  restorePiece,
  type StoredPiece,
  savePiece,
  type UnreadablePiece,
} from "../state/api";
import { useBench } from "../state/bench";
import { createRackExaminer } from "../state/rack";
import { pickPieces } from "../state/runs";
import { copyName } from "../state/saving";
import { Button } from "../ui/Button";
import { Menu } from "../ui/Menu";
import { useGoOn } from "../ui/useGoOn";
import { useInSight } from "../ui/useInSight";
import { VerdictMark } from "../ui/VerdictMark";
import { examineOnce } from "../workers/examiner";

/** The pieces, as they will be, each with its verdict. */
export function RackScreen() {
  const [pieces, setPieces] = useState<StoredPiece[] | null>(null);
  const [unreadable, setUnreadable] = useState<UnreadablePiece[]>([]);
  const [fault, setFault] = useState("");
  const [renaming, setRenaming] = useState<StoredPiece | null>(null);
  /** Ids of the pieces that are picked for sheets, in their order; `null` while none are. */
  const [picked, setPicked] = useState<readonly string[] | null>(null);
  const navigate = useNavigate();
  const goOn = useGoOn();

  const load = useCallback(async () => {
    try {
      const found = await listPieces();
      setPieces(found.pieces);
      setUnreadable(found.unreadable);
      setFault("");
    } catch (error) {
      setFault((error as ApiError).message);
    }
  }, []);
  useEffect(() => {
    void load();
  }, [load]);

  /** Runs something that changes the rack, says so when it fails, and shows the rack as it is then. */
  const attempt = async (work: () => Promise<void>) => {
    try {
      await work();
    } catch (error) {
      toast.error((error as Error).message);
    }
    await load();
  };

  const duplicate = (stored: StoredPiece) =>
    attempt(async () => void (await createPiece({ ...stored.piece, name: copyName(stored.piece.name) })));
  const asBeginning = (stored: StoredPiece) =>
    attempt(async () => {
      const starter = stored.piece.starter ? undefined : true;
      await savePiece({ ...stored.piece, starter }, { version: stored.version });
      toast(starter ? "It stands among your own beginnings when you make a new piece." : "It is no longer a beginning.");
    });
  const remove = (stored: StoredPiece) =>
    attempt(async () => {
      await deletePiece(stored.id);
      toast(`“${stored.piece.name}” was taken off the rack.`, {
        action: { label: "Put back", onClick: () => void attempt(async () => void (await restorePiece(stored.id))) },
      });
    });

  const pick = (id: string) => setPicked((ids) => (ids?.includes(id) ? ids.filter((each) => each !== id) : [...(ids ?? []), id]));
  const layPicked = async () => {
    const chosen = (picked ?? []).flatMap((id) => pieces?.find((stored) => stored.id === id) ?? []);
    try {
      const more = chosen.length > 1 ? ` and ${chosen.length - 1} more` : "";
      const id = await pickPieces(`${chosen[0]!.piece.name.slice(0, 60)}${more}`, picked!);
      await goOn(`/runs/${id}/sheets`);
    } catch (error) {
      toast.error((error as Error).message);
    }
  };

  return (
    <div className="h-full overflow-y-auto">
      <header
        className={`${picked ? "sticky top-0 z-20 bg-ground/95 shadow-[0_1px_0_var(--color-rule)]" : ""} mx-auto flex max-w-[1200px] flex-wrap items-end justify-between gap-4 px-5 pt-8 pb-6 sm:px-8 sm:pt-10`}
      >
        <div>
          <h1 className="font-display text-[34px] leading-none font-semibold">Mend Joint</h1>
          <p className="mt-2 text-quiet">Your pieces, as they will come off the machine.</p>
        </div>
        {picked ? (
          <div className="flex flex-wrap items-center gap-2">
            <span className="mr-2 text-[14px] text-quiet">Press the pieces that go on sheets together.</span>
            <Button onClick={() => setPicked(null)}>Leave it</Button>
            <Button look="strong" disabled={picked.length === 0} onClick={() => void layPicked()}>
              {picked.length === 0 ? "Lay them on sheets" : `Lay ${picked.length} on sheets`}
            </Button>
          </div>
        ) : (
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => void navigate("/stock")}>Your sheets</Button>
            <Button onClick={() => void navigate("/check")}>Check a file</Button>
            {(pieces?.length ?? 0) > 1 && <Button onClick={() => setPicked([])}>Several on sheets</Button>}
            <Button onClick={() => void navigate("/runs")}>Many names</Button>
            <Button look="strong" onClick={() => void navigate("/new")}>
              <Plus size={16} aria-hidden="true" /> New piece
            </Button>
          </div>
        )}
      </header>
      <main className="mx-auto max-w-[1200px] px-5 pb-16 sm:px-8">
        {fault && (
          <p role="alert" className="mb-4 text-falls">
            {fault}{" "}
            <button type="button" className="underline underline-offset-2" onClick={() => void load()}>
              Try again
            </button>
          </p>
        )}
        {pieces === null && !fault && <p className="text-quiet">Fetching your pieces …</p>}
        {unreadable.map(({ id, name, reason }) => (
          <p key={id} role="alert" className="mb-4 rounded-xl border border-falls/40 bg-film px-5 py-3 text-[14px]">
            <b>“{name}” cannot be read:</b> {reason}. It stays in your data folder as it is; its earlier versions are kept too.
          </p>
        ))}
        {pieces?.length === 0 && unreadable.length === 0 && (
          <p className="text-[16px] text-quiet">
            The rack is empty. Start with a new piece: type a word and see whether it holds.
          </p>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(min(320px,100%),1fr))] gap-5">
          {pieces?.map((stored) => (
            <Card
              key={stored.id}
              stored={stored}
              picked={picked && picked.indexOf(stored.id) + 1}
              onPick={pick}
              onRename={setRenaming}
              onDuplicate={duplicate}
              onBeginning={asBeginning}
              onRemove={remove}
            />
          ))}
        </ul>
      </main>
      {renaming && (
        <Rename
          stored={renaming}
          onDone={(name) => {
            setRenaming(null);
            if (name && name !== renaming.piece.name) {
              void attempt(async () => void (await savePiece({ ...renaming.piece, name }, { version: renaming.version })));
            }
          }}
        />
      )}
    </div>
  );
}

interface CardProps {
  stored: StoredPiece;
  /** Which of the picked pieces it is, from 1; 0 for none of them, `null` while none are picked. */
  picked: number | null;
  onPick(id: string): void;
  onRename(stored: StoredPiece): void;
  onDuplicate(stored: StoredPiece): void;
  onBeginning(stored: StoredPiece): void;
  onRemove(stored: StoredPiece): void;
}

function Card({ stored, picked, onPick, onRename, onDuplicate, onBeginning, onRemove }: CardProps) {
  const units = useBench((state) => state.units);
  const [card, inSight] = useInSight();
  const examination = useExaminationOf(stored, inSight);
  const { piece } = stored;
  const box = examination?.box;
  return (
    <li ref={card} className="group relative rounded-2xl border border-rule bg-film transition-colors hover:border-quiet">
      <Link to={`/bench/${stored.id}`} className="block rounded-2xl">
        <div className="h-[210px] p-6">{examination && <Thumbnail examination={examination} sheet={piece.stock} />}</div>
        <div className="flex items-end justify-between gap-3 border-t border-rule px-5 py-3.5">
          <div className="min-w-0">
            <h2 className="truncate font-display text-[17px] font-semibold">{piece.name}</h2>
            <p className="truncate text-[13px] text-quiet">
              {piece.stock.name}
              {box && (
                <span className="figure ml-2 text-[12px]">
                  {formatNumber(box.maxX - box.minX, units)} × {formatLength(box.maxY - box.minY, units)}
                </span>
              )}
            </p>
          </div>
          {examination && <VerdictMark verdict={examination.verdict} label />}
        </div>
      </Link>
      {picked !== null && (
        <button
          type="button"
          aria-pressed={picked > 0}
          aria-label={`Pick ${piece.name}`}
          onClick={() => onPick(stored.id)}
          className="absolute inset-0 z-10 rounded-2xl outline-offset-2 aria-pressed:ring-2 aria-pressed:ring-ink"
        >
          <span
            aria-hidden="true"
            className={`absolute top-3 left-3 grid size-7 place-items-center rounded-full border text-[13px] font-semibold ${
              picked > 0 ? "border-ink bg-ink text-film" : "border-quiet/60 bg-film"
            }`}
          >
            {picked > 0 ? picked : ""}
          </span>
        </button>
      )}
      <Menu
        align="end"
        className="min-w-40 p-1"
        trigger={
          <button
            type="button"
            aria-label={`What to do with ${piece.name}`}
            className="absolute top-3 right-3 grid size-9 place-items-center rounded-full text-quiet hover:bg-ink/8 hover:text-ink"
          >
            <MoreHorizontal size={18} />
          </button>
        }
      >
        <Item onSelect={() => onRename(stored)}>Rename</Item>
        <Item onSelect={() => onDuplicate(stored)}>Duplicate</Item>
        <Item onSelect={() => onBeginning(stored)}>{piece.starter ? "No longer a beginning" : "Keep as a beginning"}</Item>
        <Item onSelect={() => onRemove(stored)}>Delete</Item>
      </Menu>
    </li>
  );
}

function Item(props: { onSelect(): void; children: string }) {
  return <DropdownMenu.Item className="rounded-lg px-3 py-2 outline-none data-[highlighted]:bg-ink/8" {...props} />;
}

const rackExaminer = createRackExaminer(examineOnce);

/** Examined once per saved version, sooner while it is in sight. */
function useExaminationOf(stored: StoredPiece, inSight: boolean): Examination | null {
  const [examination, setExamination] = useState(() => rackExaminer.known(stored));
  useEffect(() => {
    const known = rackExaminer.known(stored);
    setExamination(known);
    if (known) return;
    return rackExaminer.ask({ stored, inSight, tell: setExamination });
  }, [stored, inSight]);
  return examination;
}

function Rename({ stored, onDone }: { stored: StoredPiece; onDone(name: string | null): void }) {
  const [name, setName] = useState(stored.piece.name);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (name.trim()) onDone(name.trim());
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onDone(null)}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/3 left-1/2 z-20 w-[min(400px,92vw)] -translate-x-1/2 rounded-2xl bg-film p-6 shadow-xl"
        >
          <Dialog.Title className="font-display text-[20px] font-semibold">Rename the piece</Dialog.Title>
          <form onSubmit={submit} className="mt-4 flex flex-col gap-5">
            <input
              aria-label="Name"
              value={name}
              maxLength={LIMITS.name}
              onChange={(event) => setName(event.target.value)}
              className="border-b border-quiet/50 bg-transparent py-1.5 text-[17px] outline-none focus:border-ink"
            />
            <div className="flex justify-end gap-2">
              <Button onClick={() => onDone(null)}>Leave it</Button>
              <Button look="strong" type="submit" disabled={!name.trim()}>
                Rename
              </Button>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
