import type { Examination } from "@mend-joint/core";
import { type Box, insideTest, joinBoxes, regionBox } from "@mend-joint/core/geometry";
import { type CSSProperties, type ReactNode, useEffect, useRef, useState } from "react";
import { type Selection, useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import { isTyping } from "../ui/typing";
import { useSize } from "../ui/useSize";
import { coverageOf, placeCard, staysClear } from "./card";
import { type Size, toPiece, toScreen, type View } from "./view";

interface Props {
  examination: Examination;
  view: View;
  size: Size;
  children: ReactNode;
}

/** The choices of what is in the hand, beside it. Holders have theirs in step 3 while that is open. */
export function HandCard(props: Props) {
  const selection = useBench((state) => state.selection);
  const step = useBench((state) => state.step);
  const what = selection?.move.what;
  if (!selection || selection.typed || (what === "holder" && step === "holders")) return null;
  return <Card {...props} selection={selection} />;
}

/** On the free part of the stage that is nearest to what is in the hand; on a narrow screen, where no part is free, at its lower edge. */
function Card({ examination, view, size, selection, children }: Props & { selection: Selection }) {
  const moving = useBench((state) => state.move !== null);
  const card = useRef<HTMLDivElement>(null);
  const { width, height } = useSize(card);
  const [at, setAt] = useState<{ x: number; y: number } | null>(null);
  const latest = useRef(at);
  latest.current = at;
  const adding = useShift();

  useEffect(() => {
    if (moving || width * height === 0 || !card.current) return;
    const onScreen = ({ minX, minY, maxX, maxY }: Box): Box => {
      const [low, high] = [toScreen(view, size, { x: minX, y: minY }), toScreen(view, size, { x: maxX, y: maxY })];
      return { minX: low.x, minY: high.y, maxX: high.x, maxY: low.y };
    };
    const held = boxInHand(examination, selection);
    if (!held) return setAt(null);
    const own = { width: card.current.offsetWidth, height: card.current.offsetHeight };
    // What is being typed in stays where it is, unless it has grown over what is in the hand.
    const typing = card.current.contains(document.activeElement);
    if (typing && latest.current && staysClear(latest.current, own, onScreen(held), size)) return;
    const isMaterial = insideTest(examination.material);
    const coverage = coverageOf((x, y) => {
      const place = toPiece(view, size, { x, y });
      return isMaterial(place.x, place.y);
    }, size);
    setAt(placeCard(own, onScreen(held), coverage, size));
  }, [moving, selection, examination, view, size, width, height]);

  return (
    <div
      ref={card}
      className={`${adding ? "pointer-events-none opacity-20" : ""} inset-x-0 bottom-0 z-10 max-h-[45dvh] overflow-y-auto rounded-t-xl border border-rule bg-film p-3 max-md:fixed md:absolute md:inset-[var(--top)_auto_auto_var(--left)] md:z-[1] md:max-h-[calc(100%-44px)] md:w-[236px] md:rounded-xl shadow-lg transition-opacity [&_fieldset]:m-0 [&_fieldset]:border-0 [&_fieldset]:p-0`}
      style={
        {
          "--left": `${at?.x ?? 0}px`,
          "--top": `${at?.y ?? 0}px`,
          visibility: at && !moving ? undefined : "hidden",
        } as CSSProperties
      }
      role="group"
      aria-label="In the hand"
    >
      {children}
    </div>
  );
}

/** Where on the piece that lies which is in the hand. */
function boxInHand({ solids, ghosts }: Examination, { solids: ids, move }: Selection): Box | null {
  if (move.what === "node") {
    const word = usePiece.getState().piece?.parts.find(({ id }) => id === move.wordId);
    const point = word?.kind === "word" && word.path?.kind === "curve" ? word.path.points[move.index] : undefined;
    if (word?.kind !== "word" || !point) return null;
    const [x, y] = [word.at.x + point.x, word.at.y + point.y];
    return { minX: x, minY: y, maxX: x, maxY: y };
  }
  return joinBoxes([...solids, ...ghosts].filter(({ id }) => ids.includes(id)).map(({ region }) => regionBox(region)));
}

/** While Shift is held more letters may be taken, those behind the card too. */
function useShift(): boolean {
  const [held, setHeld] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => setHeld(event.shiftKey && !isTyping(event.target));
    const onBlur = () => setHeld(false);
    window.addEventListener("keydown", onKey);
    window.addEventListener("keyup", onKey);
    window.addEventListener("blur", onBlur);
    return () => {
      window.removeEventListener("keydown", onKey);
      window.removeEventListener("keyup", onKey);
      window.removeEventListener("blur", onBlur);
    };
  }, []);
  return held;
}
