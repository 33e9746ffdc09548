/**
 * The making order as numbered steps, one open at a time.
 */
import type { Piece } from "@mend-joint/core/piece";
import { ChevronDown } from "lucide-react";
import { Accordion } from "radix-ui";
import type { ReactNode } from "react";
import { useBench } from "../state/bench";
import { HoldersStep } from "./holders/HoldersStep";
import { JointsStep } from "./JointsStep";
import { LetteringStep } from "./LetteringStep";
import { WordsStep } from "./WordsStep";

export function Steps({ piece }: { piece: Piece }) {
  const open = useBench((state) => state.step);
  const setOpen = (step: string) => useBench.setState({ step });
  const words = piece.parts.flatMap((part) => (part.kind === "word" && part.text ? [part.text] : []));
  const holders = piece.parts.filter((part) => part.kind !== "word").map((part) => part.kind);
  return (
    <Accordion.Root type="single" collapsible value={open} onValueChange={setOpen} className="flex-1 overflow-y-auto">
      <Step value="words" number={1} title="Words" note={words.join(" · ") || "none yet"}>
        <WordsStep piece={piece} />
      </Step>
      <Step value="lettering" number={2} title="Lettering" note="">
        <LetteringStep piece={piece} />
      </Step>
      <Step value="holders" number={3} title="Holders" note={holders.join(", ") || "none"}>
        <HoldersStep piece={piece} />
      </Step>
      <Step value="joints" number={4} title="Joints" note="">
        <JointsStep piece={piece} />
      </Step>
    </Accordion.Root>
  );
}

function Step({
  value,
  number,
  title,
  note,
  children,
}: {
  value: string;
  number: number;
  title: string;
  note: string;
  children: ReactNode;
}) {
  return (
    <Accordion.Item value={value} className="border-b border-rule">
      <Accordion.Header asChild>
        <h2>
          <Accordion.Trigger className="group flex w-full items-baseline gap-3 px-5 py-3 text-left outline-offset-[-2px] hover:bg-ink/4">
            <span className="figure w-4 text-[13px] text-quiet">{number}</span>
            <span className="font-display text-[17px] font-semibold">{title}</span>
            <span className="min-w-0 flex-1 truncate text-right text-[13px] text-quiet group-data-[state=open]:invisible">
              {note}
            </span>
            <ChevronDown
              size={16}
              className="self-center text-quiet transition-transform group-data-[state=open]:rotate-180"
              aria-hidden="true"
            />
          </Accordion.Trigger>
        </h2>
      </Accordion.Header>
      <Accordion.Content className="px-5 pt-1 pb-5">{children}</Accordion.Content>
    </Accordion.Item>
  );
}
