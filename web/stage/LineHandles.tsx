/**
 * The lines that words stand on, with their points, and the handle that turns the letter in the hand.
 */
import type { Examination } from "@mend-joint/core";
import type { Point } from "@mend-joint/core/geometry";
import { type Piece, removeNode, type Word } from "@mend-joint/core/piece";
import { useBench } from "../state/bench";
import { PointHandle } from "./PointHandle";
import { type Size, toScreen, type View } from "./view";

interface Props {
  examination: Examination;
  piece: Piece;
  view: View;
  size: Size;
}

export function LineHandles({ examination, piece, view, size }: Props) {
  const selection = useBench((state) => state.selection);
  const move = useBench((state) => state.move);
  const screen = (point: Point) => toScreen(view, size, point);
  const chosen = selection && "wordId" in selection.move ? selection.move.wordId : undefined;
  const words = piece.parts.filter((part): part is Word => part.kind === "word");
  return (
    <>
      {examination.words.map(({ wordId, line }) => line && <WordPath key={wordId} line={line} screen={screen} />)}
      {words
        .filter(({ id }) => words.length === 1 || id === chosen)
        .map((word) => (
          <CurvePoints key={word.id} word={word} screen={screen} />
        ))}
      {selection?.move.what === "letter" && (!move || move.what === "turn") && (
        <TurnHandle
          examination={examination}
          wordId={selection.move.wordId}
          letterKey={selection.move.key}
          screen={screen}
          size={size}
        />
      )}
    </>
  );
}

type Screen = (point: Point) => Point;

function WordPath({ line, screen }: { line: { points: Float64Array; closed: boolean }; screen: Screen }) {
  const parts: string[] = [];
  for (let i = 0; i < line.points.length; i += 2) {
    const { x, y } = screen({ x: line.points[i]!, y: line.points[i + 1]! });
    parts.push(`${i === 0 ? "M" : "L"}${x.toFixed(1)} ${y.toFixed(1)}`);
  }
  return (
    <path
      d={parts.join("") + (line.closed ? "Z" : "")}
      fill="none"
      stroke="var(--color-quiet)"
      strokeWidth={1}
      strokeDasharray="1 5"
      strokeLinecap="round"
      pointerEvents="none"
    />
  );
}

function CurvePoints({ word, screen }: { word: Word; screen: Screen }) {
  const move = useBench((state) => state.move);
  if (word.path?.kind !== "curve") return null;
  return word.path.points.map((point, index) => {
    const moved = move?.what === "node" && move.wordId === word.id && move.index === index;
    const at = screen({ x: word.at.x + point.x + (moved ? move.dx : 0), y: word.at.y + point.y + (moved ? move.dy : 0) });
    return (
      <PointHandle
        // biome-ignore lint/suspicious/noArrayIndexKey: points have no name but their place
        key={index}
        moves={{ what: "node", wordId: word.id, index }}
        onRemove={(piece) => removeNode(piece, word.id, index)}
        at={at}
        title={`Point ${index + 1} of the curve`}
      />
    );
  });
}

/** A handle stays so far inside the stage, px: the rulers lie at its upper and left edge. */
const INSIDE = { near: 38, far: 14 };

/** The place on the way from the foot to the head that can still be seen. */
function kept(foot: Point, head: Point, { width, height }: Size): Point {
  const share = (from: number, to: number, most: number) => {
    const [near, far] = [INSIDE.near, most - INSIDE.far];
    if (to < near && from > near) return (from - near) / (from - to);
    if (to > far && from < far) return (far - from) / (to - from);
    return 1;
  };
  const t = Math.min(share(foot.x, head.x, width), share(foot.y, head.y, height));
  return { x: foot.x + t * (head.x - foot.x), y: foot.y + t * (head.y - foot.y) };
}

/** Stands above the letter; going round its foot turns it. */
function TurnHandle({
  examination,
  wordId,
  letterKey,
  screen,
  size,
}: {
  examination: Examination;
  wordId: string;
  letterKey: string;
  screen: Screen;
  size: Size;
}) {
  const layout = examination.words.find((word) => word.wordId === wordId);
  const letter = layout?.letters.find(({ key }) => key === letterKey);
  if (!layout || !letter) return null;
  const reach = layout.capHeight * 1.35;
  const foot = screen(letter.foot);
  const head = kept(
    foot,
    screen({ x: letter.foot.x - Math.sin(letter.angle) * reach, y: letter.foot.y + Math.cos(letter.angle) * reach }),
    size,
  );
  return (
    <g>
      <path d={`M${foot.x} ${foot.y}L${head.x} ${head.y}`} stroke="var(--color-focus)" strokeWidth={1} pointerEvents="none" />
      <circle cx={foot.x} cy={foot.y} r={2.5} fill="var(--color-focus)" pointerEvents="none" />
      <circle
        data-turn={`${wordId} ${letterKey}`}
        cx={head.x}
        cy={head.y}
        r={8}
        fill="var(--color-focus)"
        stroke="var(--color-film)"
        strokeWidth={2}
        className="cursor-grab active:cursor-grabbing"
      >
        <title>Turn this letter</title>
      </circle>
    </g>
  );
}
