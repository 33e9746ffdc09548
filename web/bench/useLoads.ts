import type { LoadTest } from "@mend-joint/core/strength";
import { useEffect } from "react";
import { useBench } from "../state/bench";
import { loadFinger, loadTest } from "../workers/examiner";

/** While the load test is shown, it follows the piece and the finger; the last answer stays until the next is there. */
export function useLoads(): void {
  const shown = useBench((state) => state.show === "loads");
  const piece = useBench((state) => state.examined);
  const moving = useBench((state) => state.move !== null);
  const finger = useBench((state) => state.finger);

  useEffect(() => {
    if (!shown) useBench.setState({ loads: null, finger: null, fingered: null });
  }, [shown]);

  useEffect(() => {
    if (!shown || !piece || moving) return;
    let gone = false;
    const tell = (test: LoadTest | null, fault: string | null) => {
      if (gone) return;
      useBench.setState(({ loads }) => {
        const before = loads?.piece === piece.id ? (loads.test ?? loads.before) : null;
        return { loads: { piece: piece.id, test, fault, before }, ...(fault !== null && { finger: null }) };
      });
    };
    loadTest(piece).then(
      (test) => tell(test, null),
      (error: Error) => tell(null, error.message),
    );
    return () => {
      gone = true;
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
