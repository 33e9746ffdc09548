import type { Box } from "@mend-joint/core/geometry";
import type { SizeWanted } from "@mend-joint/core/mend";
import { formatLength, formatNumber, type Piece } from "@mend-joint/core/piece";
import { Popover, Switch } from "radix-ui";
import { useId, useState } from "react";
import { useBench } from "../state/bench";
import { usePiece } from "../state/piece";
import { Button } from "../ui/Button";
import { LengthField } from "../ui/LengthField";
import { scaleTo } from "../workers/examiner";

/** The finished size of the piece; pressed, the whole piece can be made larger or smaller. */
export function FinishedSize({ piece, box }: { piece: Piece; box: Box }) {
  const units = useBench((state) => state.units);
  const [open, setOpen] = useState(false);
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        title="Scale the whole piece"
        data-testid="finished-size"
        className="figure absolute bottom-3 left-9 @max-[560px]:bottom-14 rounded-full bg-film/90 px-3 py-1 text-[12px] text-quiet hover:text-ink data-[state=open]:text-ink"
      >
        {formatNumber(width, units)} × {formatLength(height, units)}
        {piece.pair && ", twice"}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="start"
          sideOffset={8}
          collisionPadding={12}
          className="z-20 w-72 rounded-2xl border border-rule bg-film p-5 shadow-lg"
          aria-label="Scale the whole piece"
        >
          <ScaleForm piece={piece} size={{ width, height }} onDone={() => setOpen(false)} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const TOO_FAR =
  "The piece cannot have that size: a part would outgrow what a part can be, or what keeps its size is larger already. It was left as it is.";

/** What was typed last leads; the other side follows. */
type Wanted = Omit<SizeWanted, "keepWidths">;

function ScaleForm({ piece, size, onDone }: { piece: Piece; size: { width: number; height: number }; onDone(): void }) {
  const [wanted, setWanted] = useState<Wanted>({ side: "width", mm: size.width });
  const [keepWidths, setKeepWidths] = useState(true);
  const [busy, setBusy] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const id = useId();
  const factor = wanted.mm / size[wanted.side];
  const set = (next: Wanted) => {
    setWanted(next);
    setRefused(null);
  };
  const scale = async () => {
    setBusy(true);
    try {
      const scaled = await scaleTo(piece, { ...wanted, keepWidths });
      // What the maker changed meanwhile goes first.
      if (usePiece.getState().piece !== piece) return setRefused("The piece was changed meanwhile, so nothing was scaled.");
      if (!scaled) return setRefused(TOO_FAR);
      usePiece.getState().change(() => scaled);
      onDone();
    } catch (error) {
      setRefused(`Scaling stopped: ${(error as Error).message}`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        void scale();
      }}
    >
      <h2 className="font-display text-[16px] font-semibold">Scale the whole piece</h2>
      <div className="grid grid-cols-2 gap-4">
        {(["width", "height"] as const).map((side) => (
          <LengthField
            key={side}
            label={`Finished ${side}`}
            value={wanted.side === side ? wanted.mm : size[side] * factor}
            least={1}
            most={10_000}
            step={1}
            onChange={(mm) => set({ side, mm })}
          />
        ))}
      </div>
      <div className="flex items-start gap-3">
        <Switch.Root
          id={id}
          checked={keepWidths}
          onCheckedChange={(checked) => {
            setKeepWidths(checked);
            setRefused(null);
          }}
          className="mt-0.5 h-5 w-9 shrink-0 rounded-full bg-quiet/40 p-0.5 data-[state=checked]:bg-ink"
        >
          <Switch.Thumb className="block size-4 rounded-full bg-film transition-transform data-[state=checked]:translate-x-4" />
        </Switch.Root>
        <label htmlFor={id} className="text-[13px]">
          Ties, sticks, loops and their holes keep their size
          {keepWidths && <span className="text-quiet">; the other side may come out a little different</span>}
        </label>
      </div>
      {refused && (
        <p role="alert" className="text-[13px] text-falls">
          {refused}
        </p>
      )}
      <Button type="submit" look="strong" disabled={busy || Math.abs(factor - 1) < 1e-4}>
        {busy ? "Scaling …" : `Scale to ${Math.round(factor * 100)} %`}
      </Button>
    </form>
  );
}
