import { formatLength, type KeptOutline, widthToDraw } from "@mend-joint/core/piece";
import { useEffect, useState } from "react";
import { outlinesOnShelf } from "../bring/keep";
import { useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import { smallestHeights } from "../workers/examiner";

/** The maker's own outlines, for as long as a chooser is open. */
export function useOwnOutlines(): readonly KeptOutline[] {
  const [own, setOwn] = useState<readonly KeptOutline[]>([]);
  useEffect(() => {
    let gone = false;
    void outlinesOnShelf().then((all) => {
      if (!gone) setOwn(all);
    });
    return () => {
      gone = true;
    };
  }, []);
  return own;
}

/** From which height silhouettes survive in the piece's sheet, as it is said: ours by name, the maker's own by id. */
export function useSurvival(own: readonly KeptOutline[]): (key: string) => string | undefined {
  const units = useBench((state) => state.units);
  const sheet = usePiece((state) => state.piece?.stock.name);
  const wanted = usePiece((state) => state.piece && widthToDraw(state.piece));
  const [heights, setHeights] = useState<Record<string, number>>({});
  useEffect(() => {
    if (!wanted) return;
    let gone = false;
    smallestHeights(
      wanted,
      own.map(({ id, outline }) => ({ id, outline })),
    ).then(
      (found) => !gone && setHeights(found),
      () => {},
    );
    return () => {
      gone = true;
    };
  }, [wanted, own]);
  return (key) => {
    const height = heights[key];
    if (height === undefined) return undefined;
    if (!Number.isFinite(height)) return "too thin at any size";
    return `survives from ${formatLength(Math.ceil(height * 2) / 2, units)} high in ${sheet}`;
  };
}
