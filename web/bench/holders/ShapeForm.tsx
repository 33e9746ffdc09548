import { partBounds, SHAPE_FORMS, type Shape, type Word } from "@mend-joint/core/piece";
import { type HolderChoiceKey, SHAPE_NAMES } from "@mend-joint/core/wording";
import { boxOf, useBench } from "../../state/bench";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { Two } from "../../ui/Two";
import { lettersToGap, wordIntoGap } from "../../workers/examiner";
import { PartOutcomes } from "../Outcomes";
import { changeBy, changePart } from "../parts";
import { FrameOpening, SolidOrFrame } from "./FrameChoices";
import { PartLength } from "./fields";
import { HolderForm } from "./HolderForm";
import { SetIn } from "./SetIn";

export function ShapeForm({ shape }: { shape: Shape }) {
  const edit = (key: HolderChoiceKey) => {
    switch (key) {
      case "form":
        return (
          <PartOutcomes
            part={shape}
            label="Form"
            value={shape.form}
            options={SHAPE_FORMS.map((value) => ({ value, text: SHAPE_NAMES[value] }))}
            change={(form) => ({ form })}
          />
        );
      case "size":
        return <SizeFields shape={shape} />;
      case "frame":
        return <FrameFields shape={shape} />;
      case "place":
        return (
          <>
            <Centre shape={shape} />
            <Two>
              <PartLength part={shape} field="dx" label="Right of middle" />
              <PartLength part={shape} field="dy" label="Above middle" />
            </Two>
          </>
        );
      case "corner":
        return <PartLength part={shape} field="corner" label="Corner radius" />;
      default:
        return <SetIn part={shape} />;
    }
  };
  return <HolderForm part={shape} title={shape.frame === undefined ? "Base shape" : "Frame"} edit={edit} />;
}

/** The middle of the lettering, or of a line that runs round one. */
function Centre({ shape }: { shape: Shape }) {
  const round = useBench((state) => state.examination?.words.some(({ ring }) => ring !== null) ?? false);
  if (!round && shape.centre === undefined) return null;
  return (
    <PartOutcomes
      part={shape}
      label="Its middle is that of"
      titled
      value={shape.centre ?? "lettering"}
      options={[
        { value: "lettering", text: "the lettering" },
        { value: "ring", text: "the ring of letters" },
      ]}
      change={(value) => ({ centre: value === "ring" ? value : undefined })}
    />
  );
}

/** Outer size: of its own, or so much larger than the lettering. */
function SizeFields({ shape }: { shape: Shape }) {
  const { size } = shape;
  const set = (next: Shape["size"]) => changePart<Shape>(shape.id, (old) => ({ ...old, size: next }));
  // A size of its own begins with the present one; before that has been measured, nothing changes.
  const own = (): Shape["size"] => {
    const box = boxOf(shape.id);
    if (!box) return size;
    // Of a ring that is open between bars, these may be longer than it is wide.
    const { width, height } = shape.form === "disc" ? squareIn(box) : box;
    return { by: "own", width: Math.round(width * 100) / 100, height: Math.round(height * 100) / 100 };
  };
  const bounds = partBounds("shape", "size", "own", "width");
  return (
    <>
      <Choice
        label="Size"
        value={size.by}
        options={[
          { value: "fit", text: "as the lettering" },
          { value: "own", text: "its own" },
        ]}
        onChange={(by) => set(by === "fit" ? { by, margin: 8 } : own())}
      />
      {size.by === "fit" && (
        <LengthField
          label="Larger all round"
          value={size.margin}
          {...partBounds("shape", "size", "fit", "margin")}
          onChange={(margin) => set({ by: "fit", margin })}
        />
      )}
      {size.by === "own" && shape.form === "disc" && (
        <LengthField
          label="Outer diameter"
          value={Math.min(size.width, size.height)}
          {...bounds}
          step={1}
          onChange={(mm) => set({ ...size, width: mm, height: mm })}
        />
      )}
      {size.by === "own" && shape.form !== "disc" && (
        <Two>
          <LengthField label="Width" value={size.width} {...bounds} step={1} onChange={(width) => set({ ...size, width })} />
          <LengthField label="Height" value={size.height} {...bounds} step={1} onChange={(height) => set({ ...size, height })} />
        </Two>
      )}
    </>
  );
}

const squareIn = ({ width, height }: { width: number; height: number }) => {
  const side = Math.min(width, height);
  return { width: side, height: side };
};

/** Solid, or a frame: how wide, and how it makes room for the word. */
function FrameFields({ shape }: { shape: Shape }) {
  const { frame, size } = shape;
  const set = (change: Partial<Shape>) => changePart<Shape>(shape.id, (old) => ({ ...old, ...change }));
  const bounds = partBounds("shape", "frame");
  const across = size.by === "own" ? Math.min(size.width, size.height) : null;
  return (
    <>
      <SolidOrFrame part={shape} width={5} />
      {frame !== undefined && (
        <>
          <Two>
            <LengthField label="Width of the frame" value={frame} {...bounds} onChange={(mm) => set({ frame: mm })} />
            {across !== null && (
              <LengthField
                label={shape.form === "disc" ? "Hole" : "Clear inside"}
                value={Math.max(0, across - 2 * frame)}
                least={Math.max(0, across - 2 * bounds.most)}
                most={across - 2 * bounds.least}
                step={1}
                onChange={(hole) => set({ frame: Math.round((across - hole) * 500) / 1000 })}
              />
            )}
          </Two>
          <FrameOpening part={shape} />
          {shape.opening === "none" && size.by === "own" && <IntoGap shape={shape} />}
          {shape.opening === "bars" && (
            <>
              <Two>
                <PartLength part={shape} field="bar" label="Height of the bars" />
                <PartLength part={shape} field="bite" label="Letters bite in" step={0.1} />
              </Two>
              <GapBetweenBars bite={shape.bite} />
              <StretchLetters bite={shape.bite} />
            </>
          )}
        </>
      )}
    </>
  );
}

/** The clear space between the bars: as high as the word, less what it bites in. Setting it sizes the word. */
function GapBetweenBars({ bite }: { bite: number }) {
  const words = useBench((state) => state.examination?.words);
  const [only, another] = usePiece(({ piece }) => piece)?.parts.filter((part): part is Word => part.kind === "word") ?? [];
  const box = words?.find(({ wordId }) => wordId === only?.id)?.box;
  if (!only || another || !box) return null;
  const { least, most } = partBounds("word", "size", "height", "mm");
  return (
    <LengthField
      label="Gap between the bars"
      value={Math.round((box.maxY - box.minY - 2 * bite) * 100) / 100}
      least={Math.max(0, least - 2 * bite)}
      most={most - 2 * bite}
      step={1}
      hint="the word is made as high as it takes"
      onChange={(gap) => changePart<Word>(only.id, (old) => ({ ...old, size: { by: "height", mm: gap + 2 * bite } }))}
    />
  );
}

/** Puts the first word into the space within a frame. */
function IntoGap({ shape }: { shape: Shape }) {
  return (
    <>
      <PartLength part={shape} field="bite" label="Letters bite in" step={0.1} />
      <Stretch text="Stretch the word into it" bite={shape.bite} by={wordIntoGap} />
      <StretchLetters bite={shape.bite} />
    </>
  );
}

/** Short letters reach both edges as well when each is stretched by itself. */
const StretchLetters = ({ bite }: { bite: number }) => (
  <Stretch text="Stretch each letter to both edges" bite={bite} by={lettersToGap} />
);

function Stretch({ text, bite, by }: { text: string; bite: number; by: typeof wordIntoGap }) {
  const word = usePiece(({ piece }) => piece?.parts.find(({ kind }) => kind === "word")?.id);
  if (!word) return null;
  return (
    <Button
      look="quiet"
      className="-ml-3 h-8 self-start px-3"
      onClick={() => void changeBy((piece) => by(piece, word, bite), NOTHING_AROUND)}
    >
      {text}
    </Button>
  );
}

const NOTHING_AROUND = "There is nothing above and below the word that it could bite into. Put it inside the frame first.";
