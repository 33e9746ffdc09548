import { formatLength, type Loop } from "@mend-joint/core/piece";
import type { HolderChoiceKey } from "@mend-joint/core/wording";
import { useBench } from "../../state/bench";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { Two } from "../../ui/Two";
import { uprightPiece } from "../../workers/examiner";
import { changePart } from "../parts";
import { PartAngle, PartLength } from "./fields";
import { HolderForm } from "./HolderForm";

export function LoopForm({ loop }: { loop: Loop }) {
  const set = (change: Partial<Loop>) => changePart<Loop>(loop.id, (old) => ({ ...old, ...change }));
  const units = useBench((state) => state.units);
  const hanger = useBench((state) => state.examination?.hangers.find(({ id }) => id === loop.id));
  const upright = async () => {
    const { piece } = usePiece.getState();
    if (!piece) return;
    const angle = await uprightPiece(piece, loop.id);
    if (angle !== null && usePiece.getState().piece === piece) set({ angle });
  };
  const turn = hanger?.turn ?? 0;
  const edit = (key: HolderChoiceKey) => {
    switch (key) {
      case "size":
        return (
          <Two>
            <PartLength part={loop} field="outer" label="Outside" />
            <PartLength part={loop} field="hole" label="Hole" />
          </Two>
        );
      case "place":
        return <PartAngle part={loop} field="angle" label="Where" hint="90 is the top" />;
      default:
        return <PartLength part={loop} field="bite" label="Bite" step={0.1} hint="into the material" />;
    }
  };
  return (
    <HolderForm part={loop} title="Loop" edit={edit}>
      <p className="text-[12px] text-quiet">
        Wall {formatLength((loop.outer - loop.hole) / 2, units, 2)}. Drag it along the outline.
      </p>
      <div className="flex items-center justify-between gap-2 text-[13px]">
        <span>{Math.abs(turn) < 0.5 ? "It hangs straight." : `It hangs ${Math.abs(turn).toFixed(1)}° turned.`}</span>
        {Math.abs(turn) >= 0.5 && (
          <Button look="quiet" className="h-8 px-3" onClick={() => void upright()}>
            Hang it straight
          </Button>
        )}
      </div>
    </HolderForm>
  );
}
