/**
 * How a picture is traced.
 */
import { Slider } from "radix-ui";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { LengthField } from "../ui/LengthField";
import { NumberField } from "../ui/NumberField";
import { Two } from "../ui/Two";
import type { TraceChoices } from "./useFound";

interface Props {
  choices: TraceChoices;
  onChange(choices: TraceChoices): void;
  /** Where the shape ends now, 0 to 255; `null` while that is not known. */
  threshold: number | null;
  /** By how much it would have to be turned to stand level, degrees; `null` where nothing tells. */
  level: number | null;
  /** Pixels to the inch; `null` while that is not known. */
  dpi: number | null;
  picking: boolean;
  onPick(): void;
}

const DETAIL = { coarse: 0.5, usual: 1, fine: 2 } as const;

export function TraceFields({ choices, onChange, threshold, level, dpi, picking, onPick }: Props) {
  const straight = level === null ? null : Math.round(level * 10) / 10;
  const set = (change: Partial<TraceChoices>) => onChange({ ...choices, ...change });
  const at = Math.round(choices.threshold ?? threshold ?? 128);
  const detail = (Object.keys(DETAIL) as (keyof typeof DETAIL)[]).find((key) => DETAIL[key] === choices.detail) ?? "usual";
  return (
    <div className="flex flex-col gap-4">
      <div>
        <div className="flex justify-between text-[13px] text-quiet">
          <span>Where the shape ends</span>
          <span className="figure">{at}</span>
        </div>
        <Slider.Root
          className="relative mt-1 flex h-6 w-full touch-none items-center"
          min={1}
          max={254}
          step={1}
          value={[at]}
          onValueChange={([value]) => set({ threshold: value! })}
        >
          <Slider.Track className="relative h-1 flex-1 rounded bg-quiet/30">
            <Slider.Range className="absolute h-full rounded bg-ink" />
          </Slider.Track>
          <Slider.Thumb aria-label="Where the shape ends" className="block size-6 rounded-full border-2 border-ink bg-film" />
        </Slider.Root>
        <div className="mt-1 flex flex-wrap gap-1">
          <Button
            look="quiet"
            className="h-8 px-3"
            disabled={choices.threshold === null}
            onClick={() => set({ threshold: null })}
          >
            Find it
          </Button>
          <Button look="quiet" className="h-8 px-3" aria-pressed={picking} onClick={onPick}>
            {picking ? "Now press on the background" : "Show what is background"}
          </Button>
        </div>
      </div>
      <Choice
        label="Curves follow the picture"
        value={detail}
        options={[
          { value: "coarse", text: "coarsely" },
          { value: "usual", text: "as usual" },
          { value: "fine", text: "closely" },
        ]}
        onChange={(next) => set({ detail: DETAIL[next] })}
      />
      <div className="flex items-end gap-2">
        <div className="min-w-0 flex-1">
          <NumberField
            label="Turned"
            unit="°"
            value={choices.turn}
            least={-45}
            most={45}
            step={0.1}
            onChange={(turn) => set({ turn })}
          />
        </div>
        <Button
          look="quiet"
          className="h-8 px-3"
          disabled={straight === null || straight === choices.turn}
          title={straight === null ? "Nothing in it is straight enough to tell" : undefined}
          onClick={() => straight !== null && set({ turn: straight })}
        >
          Straighten
        </Button>
      </div>
      <Two>
        <LengthField
          label="Smallest speck"
          hint={`at ${dpi ?? 96} pixels to the inch`}
          value={choices.speck}
          least={0}
          most={50}
          step={0.1}
          onChange={(speck) => set({ speck })}
        />
        <LengthField
          label="Smallest hole"
          value={choices.hole}
          least={0}
          most={50}
          step={0.1}
          onChange={(hole) => set({ hole })}
        />
      </Two>
    </div>
  );
}
