import { ToggleGroup } from "radix-ui";

interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; text: string }[];
  onChange(value: T): void;
}

/** A few to be switched on and off, within a group of Radix. */
export function Pills({ options }: { options: readonly { value: string; text: string }[] }) {
  return options.map(({ value, text }) => (
    <ToggleGroup.Item
      key={value}
      value={value}
      className="rounded-full border border-quiet/40 px-3 py-1 text-[13px] hover:border-ink data-[state=on]:border-ink data-[state=on]:bg-ink data-[state=on]:text-film"
    >
      {text}
    </ToggleGroup.Item>
  ));
}

/** One of a few, side by side. */
export function Choice<T extends string>({ label, value, options, onChange }: Props<T>) {
  return (
    <div>
      <span className="block text-[13px] text-quiet">{label}</span>
      <ToggleGroup.Root
        type="single"
        value={value}
        aria-label={label}
        onValueChange={(next) => next && onChange(next as T)}
        className="mt-1 flex flex-wrap gap-1"
      >
        <Pills options={options} />
      </ToggleGroup.Root>
    </div>
  );
}

interface SeveralProps<T extends string> extends Omit<Props<T>, "value" | "onChange"> {
  values: readonly T[];
  onChange(values: T[]): void;
}

/** Any of a few, side by side. */
export function Choices<T extends string>({ label, values, options, onChange }: SeveralProps<T>) {
  return (
    <div>
      <span className="block text-[13px] text-quiet">{label}</span>
      <ToggleGroup.Root
        type="multiple"
        value={[...values]}
        aria-label={label}
        onValueChange={(next) => onChange(next as T[])}
        className="mt-1 flex flex-wrap gap-1"
      >
        <Pills options={options} />
      </ToggleGroup.Root>
    </div>
  );
}
