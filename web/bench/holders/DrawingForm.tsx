import { type DrawingPart, partBounds } from "@mend-joint/core/piece";
import type { HolderChoiceKey } from "@mend-joint/core/wording";
import { traceDrawingAgain } from "../../bring/BringIn";
import { keepOnShelf } from "../../bring/keep";
import { boxOf } from "../../state/bench";
import { Button } from "../../ui/Button";
import { LengthField } from "../../ui/LengthField";
import { Two } from "../../ui/Two";
import { PartOutcomes } from "../Outcomes";
import { PlaceFigures } from "../PlaceFigures";
import { changePart } from "../parts";
import { Follows } from "./Follows";
import { FrameOpening, SolidOrFrame } from "./FrameChoices";
import { PartAngle, PartLength, YesOrNo } from "./fields";
import { HolderForm } from "./HolderForm";

/** An outline from elsewhere. */
export function DrawingForm({ drawing }: { drawing: DrawingPart }) {
  const set = (change: Partial<DrawingPart>) => changePart<DrawingPart>(drawing.id, (old) => ({ ...old, ...change }));
  const edit = (key: HolderChoiceKey) => {
    switch (key) {
      case "form":
        return (
          <label className="block text-[13px] text-quiet">
            Name
            <input
              value={drawing.name}
              maxLength={80}
              onChange={(event) => event.target.value.trim() !== "" && set({ name: event.target.value })}
              className="mt-0.5 w-full border-b border-quiet/50 bg-transparent py-1 text-[15px] text-ink outline-none focus:border-ink"
            />
          </label>
        );
      case "size":
        return <SizeFields drawing={drawing} />;
      case "frame":
        return <FrameFields drawing={drawing} />;
      case "turn":
        return (
          <>
            <PartAngle part={drawing} field="turn" label="Turned" />
            <YesOrNo label="Mirrored" value={drawing.mirror} onChange={(mirror) => set({ mirror })} />
          </>
        );
      case "place":
        return <PlaceFields drawing={drawing} />;
      case "thicken":
        return <PartLength part={drawing} field="thicken" label="Strokes thicker by" step={0.1} />;
      case "round":
        return <PartLength part={drawing} field="round" label="Round points by" step={0.1} />;
      case "holder":
        return <YesOrNo label="It holds the letters" value={drawing.holder} onChange={(holder) => set({ holder })} />;
      default:
        return (
          <>
            <PartOutcomes
              part={drawing}
              label="It"
              value={drawing.meets}
              options={[
                { value: "add", text: "joins" },
                { value: "carve", text: "is knocked out" },
                { value: "halo", text: "stands in a gap" },
                { value: "set-in", text: "takes the place of what lies behind" },
                { value: "engrave", text: "is engraved" },
                { value: "score", text: "is scored" },
              ]}
              change={(meets) => ({ meets })}
            />
            {drawing.meets === "halo" && <PartLength part={drawing} field="gap" label="Gap around it" step={0.1} />}
            {drawing.meets === "set-in" && (
              <PartLength part={drawing} field="lap" label="What lies behind reaches in" step={0.1} />
            )}
          </>
        );
    }
  };
  return (
    <HolderForm part={drawing} title={drawing.name} edit={edit}>
      {drawing.traced && (
        <Button look="quiet" className="-ml-3 h-8 self-start px-3" onClick={() => void traceDrawingAgain(drawing)}>
          Trace its picture again
        </Button>
      )}
      <Button look="quiet" className="-ml-3 h-8 self-start px-3" onClick={() => void keepOnShelf(drawing)}>
        Keep it on your shelf
      </Button>
    </HolderForm>
  );
}

/** Upright, its width follows from its height. */
function SizeFields({ drawing }: { drawing: DrawingPart }) {
  const box = drawing.turn === 0 && drawing.meets !== "carve" ? boxOf(drawing.id) : null;
  const { least, most } = partBounds("drawing", "height");
  const share = box ? box.width / box.height : null;
  return (
    <Two>
      <PartLength part={drawing} field="height" label="Height" step={1} />
      {share !== null && (
        <LengthField
          label="Width"
          value={Math.round(drawing.height * share * 100) / 100}
          least={least * share}
          most={most * share}
          step={1}
          onChange={(width) => changePart<DrawingPart>(drawing.id, (old) => ({ ...old, height: width / share }))}
        />
      )}
    </Two>
  );
}

function PlaceFields({ drawing }: { drawing: DrawingPart }) {
  const place = (change: Partial<DrawingPart["at"]>) =>
    changePart<DrawingPart>(drawing.id, (old) => ({ ...old, at: { ...old.at, ...change } }));
  return (
    <>
      <PlaceFigures at={drawing.at} within={["drawing", "at"]} onChange={place} />
      <Follows at={drawing.at} onChange={(at) => changePart<DrawingPart>(drawing.id, (old) => ({ ...old, at }))} />
    </>
  );
}

function FrameFields({ drawing }: { drawing: DrawingPart }) {
  return (
    <>
      <SolidOrFrame part={drawing} width={4} />
      {drawing.frame !== undefined && (
        <>
          <PartLength part={drawing} field="frame" label="Width of the frame" />
          <FrameOpening part={drawing} />
          {drawing.opening === "bars" && (
            <Two>
              <PartLength part={drawing} field="bar" label="Height of the bars" />
              <PartLength part={drawing} field="bite" label="Letters bite in" step={0.1} />
            </Two>
          )}
        </>
      )}
    </>
  );
}
