import { Switch } from "radix-ui";

interface Props {
  label: string;
  note?: string;
  on: boolean;
  onChange(on: boolean): void;
}

/** Something that is on or off, with what it means below it. */
export function Toggle({ label, note, on, onChange }: Props) {
  return (
    <label className="flex items-start justify-between gap-3 text-[14px]">
      <span>
        {label}
        {note && <span className="block text-[12px] text-quiet">{note}</span>}
      </span>
      <Switch.Root
        checked={on}
        onCheckedChange={onChange}
        className="mt-0.5 h-5 w-9 shrink-0 rounded-full bg-quiet/40 transition-colors data-[state=checked]:bg-ink"
      >
        <Switch.Thumb className="block size-4 translate-x-0.5 rounded-full bg-film transition-transform data-[state=checked]:translate-x-[18px]" />
      </Switch.Root>
    </label>
  );
}
