import { SHAPE_FORMS, type Shape } from "@mend-joint/core/piece";
import { toast } from "sonner";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { LengthField } from "../../ui/LengthField";
import { Pick } from "../../ui/Pick";
import { wordIntoGap } from "../../workers/examiner";
import { changePart } from "../parts";
import { HolderForm, Two } from "./HolderForm";
import { SetIn } from "./SetIn";

const NAMES: Record<Shape["form"], string> = {
  disc: "disc",
  oval: "oval",
  plate: "rounded plate",
  arch: "arch",
  tag: "tag",
  shield: "shield",
  cloud: "cloud",
  banner: "banner",
};

export function ShapeForm({ shape }: { shape: Shape }) {
  const set = (change: Partial<Shape>) => changePart<Shape>(shape.id, (old) => ({ ...old, ...change }));
  const { size } = shape;
  return (
    <HolderForm id={shape.id} title={shape.frame === undefined ? "Base shape" : "Frame"}>
      <Pick
        label="Form"
        value={shape.form}
        options={SHAPE_FORMS.map((value) => ({ value, text: NAMES[value] }))}
        onChange={(form) => set({ form })}
      />
      <Choice
        label="Size"
        value={size.by}
        options={[
          { value: "fit", text: "as the lettering" },
          { value: "own", text: "its own" },
        ]}
        onChange={(by) => set({ size: by === "fit" ? { by, margin: 8 } : { by, width: 100, height: 60 } })}
      />
      <Two>
        {size.by === "fit" ? (
          <LengthField
            label="Larger all round"
            value={size.margin}
            least={-200}
            most={200}
            onChange={(margin) => set({ size: { by: "fit", margin } })}
          />
        ) : (
          <>
            <LengthField
              label="Width"
              value={size.width}
              least={2}
              most={1000}
              step={1}
              onChange={(width) => set({ size: { ...size, width } })}
            />
            <LengthField
              label="Height"
              value={size.height}
              least={2}
              most={1000}
              step={1}
              onChange={(height) => set({ size: { ...size, height } })}
            />
          </>
        )}
        <LengthField label="Corner radius" value={shape.corner} least={0} most={200} onChange={(corner) => set({ corner })} />
        <LengthField label="Right of middle" value={shape.dx} least={-1000} most={1000} onChange={(dx) => set({ dx })} />
        <LengthField label="Above middle" value={shape.dy} least={-1000} most={1000} onChange={(dy) => set({ dy })} />
      </Two>
      <Choice
        label="It is"
        value={shape.frame === undefined ? "solid" : "frame"}
        options={[
          { value: "solid", text: "solid" },
          { value: "frame", text: "a frame" },
        ]}
        onChange={(value) => set(value === "solid" ? { frame: undefined, opening: "none" } : { frame: 5 })}
      />
      {shape.frame !== undefined && (
        <>
          <LengthField
            label="Width of the frame"
            value={shape.frame}
            least={0.5}
            most={200}
            onChange={(frame) => set({ frame })}
          />
          <Choice
            label="At the word"
            value={shape.opening}
            options={[
              { value: "none", text: "closed" },
              { value: "behind", text: "ends in the word" },
              { value: "bars", text: "open between bars" },
            ]}
            onChange={(opening) => set({ opening })}
          />
          {shape.opening === "none" && size.by === "own" && <IntoGap shape={shape} />}
          {shape.opening === "bars" && (
            <Two>
              <LengthField label="Height of the bars" value={shape.bar} least={0.5} most={100} onChange={(bar) => set({ bar })} />
              <LengthField
                label="Letters bite in"
                value={shape.bite}
                least={-50}
                most={50}
                step={0.1}
                onChange={(bite) => set({ bite })}
              />
            </Two>
          )}
        </>
      )}
      {(shape.meets === "add" || shape.meets === "set-in") && <SetIn part={shape} onChange={set} />}
    </HolderForm>
  );
}

/** Puts the first word into the space within a frame. */
function IntoGap({ shape }: { shape: Shape }) {
  const word = usePiece(({ piece }) => piece?.parts.find(({ kind }) => kind === "word")?.id);
  if (!word) return null;
  const stretch = async () => {
    const { piece } = usePiece.getState();
    const done = piece && (await wordIntoGap(piece, word, shape.bite));
    if (done) usePiece.getState().change((now) => (now === piece ? done : now));
    else toast("There is nothing above and below the word that it could bite into. Put it inside the frame first.");
  };
  return (
    <div className="flex items-end justify-between gap-3">
      <LengthField
        label="Letters bite in"
        value={shape.bite}
        least={-50}
        most={50}
        step={0.1}
        onChange={(bite) => changePart<Shape>(shape.id, (old) => ({ ...old, bite }))}
      />
      <Button look="quiet" className="h-9 px-3" onClick={() => void stretch()}>
        Stretch the word into it
      </Button>
    </div>
  );
}
