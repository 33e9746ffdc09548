import {
  type ArcPath,
  type CurvePath,
  LIMITS,
  type OutlinePath,
  onePointMore,
  partBounds,
  type SpiralPath,
  type Word,
  type WordPath,
  withPart,
  withPath,
} from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
import { Button } from "../../ui/Button";
import { LengthField } from "../../ui/LengthField";
import { Outcomes } from "../Outcomes";
import { changePart } from "../parts";
import { LineFields } from "./AlongFields";
import { ArcFields } from "./ArcFields";
import { OutlineFields, useDrawings } from "./OutlineFields";
import { SpiralFields } from "./SpiralFields";

/** What the letters of a word stand on. */
export function RunFields({ word }: { word: Word }) {
  const kind = word.path?.kind ?? "straight";
  const drawings = useDrawings();
  return (
    <>
      <Outcomes
        label="Letters run"
        around={word.id}
        value={kind}
        options={[
          { value: "straight", text: "straight" },
          { value: "stacked", text: "downwards, one below the other" },
          { value: "arc", text: "along an arc or round a ring" },
          { value: "curve", text: "along a curve of your own" },
          { value: "spiral", text: "along a spiral" },
          ...(drawings.length > 0 || kind === "outline"
            ? [{ value: "outline" as const, text: "round a drawing’s outline" }]
            : []),
        ]}
        apply={(piece, next) =>
          withPart<Word>(piece, word.id, (old) =>
            next === kind ? old : withPath(old, next, { width: widthOf(old), drawing: drawings[0]?.id }),
          )
        }
      />
      {word.path && <PathFields word={word} path={word.path} />}
    </>
  );
}

function PathFields({ word, path }: { word: Word; path: WordPath }) {
  const set = <P extends WordPath>(change: Partial<P>) =>
    changePart<Word>(word.id, (old) => (old.path ? { ...old, path: { ...old.path, ...change } as WordPath } : old));
  switch (path.kind) {
    case "stacked":
      return (
        <LengthField
          label="Joint from letter to letter"
          value={path.joint}
          {...partBounds("word", "path", "stacked", "joint")}
          step={0.1}
          onChange={(joint) => set({ joint })}
          hint="Each comes up until it bites so wide into the one above."
        />
      );
    case "arc":
      return <ArcFields word={word} path={path} set={set<ArcPath>} />;
    case "curve":
      return (
        <>
          <p className="text-[12px] text-quiet">Drag the points on the piece. Letters stand on the curve and stay undistorted.</p>
          <div className="flex gap-1">
            <Button
              look="quiet"
              className="-ml-3 h-8 px-3"
              disabled={path.points.length >= LIMITS.nodes}
              onClick={() => set<CurvePath>({ points: onePointMore(path) })}
            >
              Add a point
            </Button>
            <Button
              look="quiet"
              className="h-8 px-3"
              disabled={path.points.length <= 2}
              onClick={() => set<CurvePath>({ points: path.points.slice(0, -1) })}
            >
              Take the last away
            </Button>
          </div>
          <LineFields path={path} set={set} />
        </>
      );
    case "spiral":
      return <SpiralFields path={path} set={set<SpiralPath>} />;
    case "outline":
      return <OutlineFields path={path} set={set<OutlinePath>} />;
  }
}

/** How wide a word is now, mm. */
function widthOf(word: Word): number | undefined {
  const layout = useBench.getState().examination?.words.find(({ wordId }) => wordId === word.id);
  return layout?.box ? layout.box.maxX - layout.box.minX : undefined;
}
