import type { LinePurpose, MachineProfile, Work } from "@mend-joint/core/cut";
import { formatLength, type Units } from "@mend-joint/core/piece";
import { Switch } from "radix-ui";
import { useBench } from "../state/bench";
import { useCutting } from "../state/cutting";
import { duration } from "./duration";

/** As makers count them: what matters most comes first. */
export const PURPOSES = [
  { value: "cut", text: "Cut" },
  { value: "score", text: "Scored" },
  { value: "engrave", text: "Engraved" },
] as const satisfies { value: LinePurpose; text: string }[];

interface Props {
  purpose: (typeof PURPOSES)[number];
  profile: MachineProfile;
  /** What there is to do for it; `undefined` while that is not known. */
  work: Work | undefined;
}

/** Lines of one purpose: as the machine knows them, and whether they are left out. */
export function PurposeRow({ purpose: { value: purpose, text }, profile, work }: Props) {
  const units = useBench((state) => state.units);
  const without = useCutting((state) => state.without);
  const { colour, layer } = profile.lines[purpose];
  const on = !without.includes(purpose);
  const set = (next: boolean) =>
    useCutting.setState({ without: next ? without.filter((each) => each !== purpose) : [...without, purpose] });
  return (
    <li className="flex items-center gap-3 border-b border-rule py-2.5">
      <span className="h-5 w-1.5 rounded-full" style={{ background: colour }} aria-hidden="true" />
      <span className="min-w-0 flex-1">
        <span className="block text-[14px] font-medium">{text}</span>
        <span className="figure block truncate text-[12px] text-quiet">{on ? work && workSaid(work, units) : "left out"}</span>
      </span>
      <span className="figure max-w-20 truncate text-[11px] text-quiet" title={`Layer ${layer}, colour ${colour}`}>
        {layer}
      </span>
      <Switch.Root
        checked={on}
        onCheckedChange={set}
        aria-label={`${text} lines`}
        className="relative h-5 w-9 shrink-0 rounded-full bg-quiet/35 data-[state=checked]:bg-ink"
      >
        <Switch.Thumb className="block size-4 translate-x-0.5 rounded-full bg-film transition-transform data-[state=checked]:translate-x-[18px]" />
      </Switch.Root>
    </li>
  );
}

const workSaid = ({ count, length, seconds }: Work, units: Units) =>
  count > 0 ? `${formatLength(length, units, 0)}, ${duration(seconds)}` : "nothing";
