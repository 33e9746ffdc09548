import type { Piece } from "@mend-joint/core/piece";
import type { LoadTest, UseLoad } from "@mend-joint/core/strength";
import { useEffect, useRef, useState } from "react";
import { useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import { loadFinger, loadTest } from "../workers/examiner";

/** The load test waits until the piece has been left alone for so long while it is not shown, ms … */
const AT_REST = 1500;
/** … and is not asked for then of pieces with more letters than this: they would keep the examiner from what is changed next. */
const FEW_LETTERS = 30;

/**
 * The load test follows the piece, at once while it is shown, also while something of it is dragged, and the finger; the last answer stays
 * until the next is there.
 */
export function useLoads(): void {
  const shown = useBench((state) => state.show === "loads");
  const piece = useBench((state) => state.examined);
  const moving = useBench((state) => state.move !== null);
  const finger = useBench((state) => state.finger);
  const asking = useRef(false);
  const [answers, setAnswers] = useState(0);

  useEffect(() => {
    if (!shown) useBench.setState({ finger: null, fingered: null });
  }, [shown]);

  // biome-ignore lint/correctness/useExhaustiveDependencies: after each answer it is looked whether the piece is another by now
  useEffect(() => {
    if (!piece || asking.current || (!shown && (moving || lettersOf(piece) > FEW_LETTERS))) return;
    // Said already.
    if (useBench.getState().loads?.piece === piece) return;
    const tell = (test: LoadTest | null, fault: string | null) => {
      if (usePiece.getState().piece?.id !== piece.id) return;
      useBench.setState(({ loads }) => {
        const known = loads?.piece.id === piece.id ? loads : null;
        // What it took before the hand came is what to compare with, not what it took a moment ago.
        const before = known?.moving ? known.before : (known?.test ?? known?.before ?? null);
        // How it falls is worked out when it is let go.
        const fallen = known?.test?.uses.find(isFall);
        const whole = test && moving && fallen && !test.uses.some(isFall) ? { ...test, uses: [...test.uses, fallen] } : test;
        return { loads: { piece, test: whole, fault, before, moving }, ...(fault !== null && { finger: null }) };
      });
    };
    const ask = () => {
      asking.current = true;
      loadTest(piece, moving)
        .then(
          (test) => tell(test, null),
          (error: Error) => tell(null, error.message),
        )
        .finally(() => {
          asking.current = false;
          setAnswers((count) => count + 1);
        });
    };
    const waiting = setTimeout(ask, shown ? 0 : AT_REST);
    return () => clearTimeout(waiting);
  }, [shown, piece, moving, answers]);

  useEffect(() => {
    if (!shown || !piece || moving || !finger) {
      useBench.setState({ fingered: null });
      return;
    }
    let gone = false;
    loadFinger(piece, finger.at, finger.direction).then(
      (fingered) => !gone && useBench.setState({ fingered }),
      // What is pushed hangs on nothing.
      () => !gone && useBench.setState({ finger: null, fingered: null }),
    );
    return () => {
      gone = true;
    };
  }, [shown, piece, moving, finger]);
}

const isFall = ({ kind }: UseLoad) => kind === "dropping";

const lettersOf = ({ parts }: Piece): number =>
  parts.reduce((sum, part) => sum + (part.kind === "word" ? part.keys.length : 0), 0);
