/**
 * What the hand does on the board: it takes parts and moves them, turns letters, pans, zooms.
 */
import type { Examination } from "@mend-joint/core";
import { applyMove, isStill, type Move, type Side } from "@mend-joint/core/piece";
import { useGesture } from "@use-gesture/react";
import { type RefObject, useRef } from "react";
import { boxOfDrawn, lineOf, type Selection, selectionOf, useBench, withLetter } from "../state/bench";
import { usePiece } from "../state/piece";
import { type Size, toPiece, type View } from "./view";

interface Board {
  frame: RefObject<HTMLDivElement | null>;
  view: View;
  size: Size;
  zoom(factor: number, at: { x: number; y: number }): void;
  /** Pixels. */
  pan(dx: number, dy: number): void;
}

/** A move for so many mm, at a place of the pointer on the board in mm. */
type Grip = (dx: number, dy: number, at: { x: number; y: number }) => Move;

/** A finger that rests so long on a letter takes it in addition, ms: there is no Shift on a tablet. */
const LONG_PRESS = 500;
/** A finger that has moved less still rests, px. */
const RESTS = 6;

/** With Ctrl held, moves go straight by whole millimetres and turns by so many degrees. */
const TURN_STEP = 15;

export function useHand({ frame, view, size, zoom, pan }: Board): void {
  const grip = useRef<Grip | null>(null);
  const resting = useRef<ReturnType<typeof setTimeout>>(undefined);
  const within = (x: number, y: number) => {
    const bounds = frame.current!.getBoundingClientRect();
    return { x: x - bounds.left, y: y - bounds.top };
  };
  useGesture(
    {
      onPointerDown: ({ event }) => {
        const { examination, selection } = useBench.getState();
        const target = event.target as Element;
        grip.current = examination && gripOf(examination, target, toPiece(view, size, within(event.clientX, event.clientY)));
        if (grip.current) return;
        const taken = examination && takenBy(examination, target, event, selection);
        const hold = (held: Selection | null) => {
          useBench.setState({ selection: held });
          grip.current = held && ((dx, dy) => ({ ...held.move, dx, dy }));
        };
        hold(taken);
        if (event.pointerType !== "touch" || !taken || !selection) return;
        const more = { altKey: false, shiftKey: true };
        resting.current = setTimeout(() => hold(takenBy(examination, target, more, selection)), LONG_PRESS);
      },
      onDrag: ({ movement: [mx, my], delta: [dx, dy], xy: [x, y], tap, event, pinching, cancel }) => {
        if (pinching || Math.hypot(mx, my) > RESTS) clearTimeout(resting.current);
        if (tap) return;
        // A second finger means the view: what the first had in the hand stays where it was.
        if (pinching) {
          grip.current = null;
          useBench.setState({ move: null });
          return cancel();
        }
        if (!grip.current) return pan(dx, dy);
        const move = grip.current(mx / view.scale, -my / view.scale, toPiece(view, size, within(x, y)));
        useBench.setState({ move: (event as PointerEvent).ctrlKey ? snapped(move) : move });
      },
      onDragEnd: () => {
        clearTimeout(resting.current);
        const { move } = useBench.getState();
        grip.current = null;
        if (move && !isStill(move)) usePiece.getState().change((old) => applyMove(old, move));
        useBench.setState({ move: null });
      },
      onWheel: ({ event }) => {
        event.preventDefault();
        zoom(Math.exp(-event.deltaY * 0.0016), within(event.clientX, event.clientY));
      },
      onPinch: ({ delta: [change], origin: [x, y], event, first, memo }) => {
        event.preventDefault();
        const [lastX, lastY] = first ? [x, y] : (memo as [number, number]);
        // Two fingers that go along together move the view.
        if (x !== lastX || y !== lastY) pan(x - lastX, y - lastY);
        if (change !== 0) zoom(1 + change, within(x, y));
        return [x, y];
      },
    },
    { target: frame, eventOptions: { passive: false }, drag: { filterTaps: true, pointer: { keys: false } } },
  );
}

/** Handles that stand beside the parts: points of curves, the handle that turns a letter. */
function gripOf(examination: Examination, target: Element, start: { x: number; y: number }): Grip | null {
  const node = target.getAttribute("data-node");
  if (node) {
    const [wordId, index] = node.split(" ") as [string, string];
    useBench.setState({ selection: { solids: [], move: { what: "node", wordId, index: Number(index) } } });
    return (dx, dy) => ({ what: "node", wordId, index: Number(index), dx, dy });
  }
  const end = target.getAttribute("data-end");
  if (end) {
    const [id, index] = end.split(" ") as [string, string];
    return (dx, dy) => ({ what: "end", id, index: index === "0" ? 0 : 1, dx, dy });
  }
  const bridged = target.getAttribute("data-bridge");
  if (bridged) {
    const [wordId, key, hole] = bridged.split(" ") as [string, string, string];
    const bridge = examination.bridges.find((each) => each.wordId === wordId && each.key === key && each.hole === Number(hole));
    if (!bridge) return null;
    const { from, angle } = bridge;
    const way = (at: { x: number; y: number }) => (Math.atan2(at.y - from.y, at.x - from.x) * 180) / Math.PI;
    return (_, __, at) => ({
      what: "bridge",
      wordId,
      key,
      hole: bridge.hole,
      from: angle,
      turn: Math.round(way(at) - way(start)),
    });
  }
  const hanger = examination.hangers.find(({ id }) => id === target.getAttribute("data-solid"));
  if (hanger) return loopGrip(examination, hanger.id, start);
  const edge = target.getAttribute("data-edge");
  if (edge) {
    const [id, side] = edge.split(" ") as [string, Side];
    const out = (dx: number, dy: number) => (side === "right" ? dx : side === "top" ? dy : -dy);
    return (dx, dy) => ({ what: "size", id, side, out: Math.round(out(dx, dy) * 100) / 100 });
  }
  const spun = target.getAttribute("data-turn-part");
  if (spun) return partGrip(examination, spun, start);
  const turning = target.getAttribute("data-turn");
  if (!turning) return null;
  const [wordId, key] = turning.split(" ") as [string, string];
  const foot = examination.words.find((word) => word.wordId === wordId)?.letters.find((letter) => letter.key === key)?.foot;
  if (!foot) return null;
  const angle = (at: { x: number; y: number }) => (Math.atan2(at.y - foot.y, at.x - foot.x) * 180) / Math.PI;
  return (_, __, at) => ({ what: "turn", wordId, key, turn: Math.round((angle(at) - angle(start)) * 10) / 10 });
}

/** An ornament or a drawing turns about the middle of its box. */
function partGrip(examination: Examination, id: string, start: { x: number; y: number }): Grip | null {
  const box = boxOfDrawn(examination, id);
  if (!box) return null;
  const [cx, cy] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
  const angle = (at: { x: number; y: number }) => (Math.atan2(at.y - cy, at.x - cx) * 180) / Math.PI;
  return (_, __, at) => ({ what: "turn part", id, turn: Math.round((angle(at) - angle(start)) * 10) / 10 });
}

/** A loop goes round the piece as the hand goes round its middle. */
function loopGrip({ box }: Examination, id: string, start: { x: number; y: number }): Grip | null {
  if (!box) return null;
  useBench.setState({ selection: { solids: [id], move: { what: "holder", id } } });
  const middle = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 };
  // Seen in a square, so that a long piece is gone round evenly.
  const angle = (at: { x: number; y: number }) =>
    (Math.atan2((at.y - middle.y) / (box.maxY - box.minY), (at.x - middle.x) / (box.maxX - box.minX)) * 180) / Math.PI;
  return (_, __, at) => ({ what: "loop", id, turn: Math.round((angle(at) - angle(start)) * 10) / 10 });
}

/** With Alt the hand takes the whole line, with Shift one letter more. */
function takenBy(
  examination: Examination,
  target: Element,
  event: Pick<PointerEvent, "altKey" | "shiftKey">,
  held: Selection | null,
): Selection | null {
  // A tick lies over the part that it measures, and gives it to the hand.
  const id = target.getAttribute("data-solid") ?? target.getAttribute("data-takes");
  const own = id ? selectionOf(examination, id) : null;
  if (!own) return null;
  if (event.altKey) return lineOf(examination, own) ?? own;
  if (event.shiftKey) return withLetter(examination, held, own);
  // Taking hold of one of several letters in the hand moves them all.
  return held?.move.what === "letters" && held.solids.includes(id!) ? held : own;
}

function snapped(move: Move): Move {
  if ("turn" in move) return { ...move, turn: Math.round(move.turn / TURN_STEP) * TURN_STEP };
  if (move.what === "size") return { ...move, out: Math.round(move.out) };
  const along = Math.abs(move.dx) > Math.abs(move.dy);
  return { ...move, dx: along ? Math.round(move.dx) : 0, dy: along ? 0 : Math.round(move.dy) };
}
