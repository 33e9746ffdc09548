import type { Piece } from "@mend-joint/core/piece";
import type { LoadTest } from "@mend-joint/core/strength";
import { useEffect } from "react";
import { useBench } from "../state/bench";
import { loadFinger, loadTest } from "../workers/examiner";

/** The load test waits until the piece has been left alone for so long while it is not shown, ms … */
const AT_REST = 900;
/** … and is not asked for then of pieces with more letters than this: they would keep the examiner from what is changed next. */
const FEW_LETTERS = 30;

/**
 * The load test follows the piece, at once while it is shown, and the finger; the last answer stays until the next is there.
 */
export function useLoads(): void {
  const shown = useBench((state) => state.show === "loads");
  const piece = useBench((state) => state.examined);
  const moving = useBench((state) => state.move !== null);
  const finger = useBench((state) => state.finger);

  useEffect(() => {
    if (!shown) useBench.setState({ finger: null, fingered: null });
  }, [shown]);

  useEffect(() => {
    if (!piece || moving || (!shown && lettersOf(piece) > FEW_LETTERS)) return;
    // Said already.
    if (useBench.getState().loads?.piece === piece) return;
    let gone = false;
    const tell = (test: LoadTest | null, fault: string | null) => {
      if (gone) return;
      useBench.setState(({ loads }) => {
        const before = loads?.piece.id === piece.id ? (loads.test ?? loads.before) : null;
        return { loads: { piece, test, fault, before }, ...(fault !== null && { finger: null }) };
      });
    };
    const ask = () => {
      loadTest(piece).then(
        (test) => tell(test, null),
        (error: Error) => tell(null, error.message),
      );
    };
    const waiting = setTimeout(ask, shown ? 0 : AT_REST);
    return () => {
      gone = true;
      clearTimeout(waiting);
    };
  }, [shown, piece, moving]);

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

const lettersOf = ({ parts }: Piece): number =>
  parts.reduce((sum, part) => sum + (part.kind === "word" ? part.keys.length : 0), 0);
