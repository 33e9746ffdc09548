import { formatLength, type Loop } from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
import { usePiece } from "../../state/piece";
import { Button } from "../../ui/Button";
import { LengthField } from "../../ui/LengthField";
import { NumberField } from "../../ui/NumberField";
import { uprightPiece } from "../../workers/examiner";
import { changePart } from "../parts";
import { HolderForm, Two } from "./HolderForm";

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
  return (
    <HolderForm id={loop.id} title="Loop">
      <Two>
        <LengthField label="Outside" value={loop.outer} least={1} most={200} onChange={(outer) => set({ outer })} />
        <LengthField label="Hole" value={loop.hole} least={0.3} most={190} onChange={(hole) => set({ hole })} />
        <NumberField
          label="Where"
          unit="°"
          value={loop.angle}
          least={-360}
          most={360}
          onChange={(angle) => set({ angle })}
          hint="90 is the top"
        />
        <LengthField
          label="Bite"
          value={loop.bite}
          least={-50}
          most={100}
          step={0.1}
          onChange={(bite) => set({ bite })}
          hint="into the material"
        />
      </Two>
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
