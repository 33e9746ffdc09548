import type { Examination } from "@mend-joint/core";
import { type Box, regionBox } from "@mend-joint/core/geometry";
import { type Part, type Piece, withPart } from "@mend-joint/core/piece";
import { RadioGroup } from "radix-ui";
import { useEffect, useState } from "react";
import { Thumbnail } from "../stage/Thumbnail";
import { usePiece } from "../state/piece";
import { VerdictMark } from "../ui/VerdictMark";
import { tryOut } from "../workers/examiner";

interface Props<T extends string> {
  label: string;
  /** The label is seen as well as read out: where there is more than one choice. */
  titled?: boolean;
  /** The word or holder that is looked at; left out, the whole piece. */
  around?: string | undefined;
  value: T;
  options: readonly { value: T; text: string }[];
  /** The piece as it would be with a choice. */
  apply(piece: Piece, value: T): Piece;
}

/** The hand must have rested so long before the choices are tried, ms. */
const REST = 150;

/** One of several, each shown as the piece would be with it, and whether that would hold. */
export function Outcomes<T extends string>({ label, titled = false, around, value, options, apply }: Props<T>) {
  const piece = usePiece((state) => state.piece)!;
  const tried = useTried(piece, options, apply);
  const choose = (next: T) => usePiece.getState().change((old) => apply(old, next));
  return (
    <RadioGroup.Root
      aria-label={label}
      value={value}
      onValueChange={(next) => choose(next as T)}
      className="grid grid-cols-2 gap-1.5"
    >
      {titled && <span className="col-span-2 text-[13px] text-quiet">{label}</span>}
      {options.map((option, i) => {
        const answer = tried[i];
        // What was tried on the piece as it was is pale until it has been tried again, and says no verdict.
        const examination = answer?.piece === piece ? answer.examination : undefined;
        return (
          <RadioGroup.Item
            key={option.value}
            value={option.value}
            className="flex min-w-0 flex-col gap-1 rounded-lg border bg-film p-1.5 text-left hover:border-ink border-rule data-[state=checked]:border-ink data-[state=checked]:outline-1 data-[state=checked]:outline-ink"
          >
            <span className={`block h-11 w-full ${examination ? "" : "opacity-40"}`}>
              {answer && (
                <Thumbnail
                  examination={answer.examination}
                  sheet={piece.stock}
                  focus={around === undefined ? undefined : boxAround(answer.examination, around)}
                />
              )}
            </span>
            <span className="flex items-start gap-1 text-[12px] leading-tight">
              <span className="min-w-0 flex-1">{option.text}</span>
              {examination && (
                <span title={examination.verdict} className="shrink-0">
                  <VerdictMark verdict={examination.verdict} size={14} />
                  <span className="sr-only">, {examination.verdict}</span>
                </span>
              )}
            </span>
          </RadioGroup.Item>
        );
      })}
    </RadioGroup.Root>
  );
}

interface PartProps<P extends Part, T extends string> extends Omit<Props<T>, "apply"> {
  part: P;
  /** What of the part is another with a choice. */
  change(value: T): Partial<P>;
}

/** The same for what is decided about one part. */
export function PartOutcomes<P extends Part, T extends string>({ part, change, ...shown }: PartProps<P, T>) {
  return <Outcomes {...shown} apply={(piece, value) => withPart<P>(piece, part.id, (old) => ({ ...old, ...change(value) }))} />;
}

/** Seen around a holder, mm. */
const AROUND = 6;

/** The box of a word, or of a holder with something around it; `undefined` where it has no material. */
function boxAround({ words, solids }: Examination, id: string): Box | undefined {
  const word = words.find(({ wordId }) => wordId === id);
  if (word) return word.box ?? undefined;
  const box = regionBox(solids.filter(({ partId }) => partId === id).flatMap(({ region }) => region));
  return box ? { minX: box.minX - AROUND, minY: box.minY - AROUND, maxX: box.maxX + AROUND, maxY: box.maxY + AROUND } : undefined;
}

/** A choice tried on a piece. */
interface Tried {
  piece: Piece;
  examination: Examination;
}

/** The choices tried one after the other, for as long as the piece stays as it is. */
export function useTried<T extends string>(
  piece: Piece,
  options: readonly { value: T }[],
  apply: (piece: Piece, value: T) => Piece,
): (Tried | undefined)[] {
  const [tried, setTried] = useState<(Tried | undefined)[]>([]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: choices follow from the piece
  useEffect(() => {
    let gone = false;
    const timer = setTimeout(async () => {
      for (let i = 0; i < options.length && !gone; i++) {
        const examination = await tryOut(apply(piece, options[i]!.value)).catch(() => undefined);
        const answer = examination && { piece, examination };
        if (!gone) setTried((old) => options.map((_, k) => (k === i ? answer : old[k])));
      }
    }, REST);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [piece]);
  return tried;
}
