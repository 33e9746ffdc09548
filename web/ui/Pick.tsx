import { useId } from "react";

interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; text: string }[];
  onChange(value: T): void;
}

/** One of several, from a list that opens. */
export function Pick<T extends string>({ label, value, options, onChange }: Props<T>) {
  const id = useId();
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="block text-[13px] text-quiet">
        {label}
      </label>
      <select
        id={id}
        value={value}
        onChange={(event) => onChange(event.target.value as T)}
        className="mt-0.5 w-full border-b border-quiet/50 truncate bg-transparent py-1.5 text-[14px] outline-offset-2 hover:border-ink"
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.text}
          </option>
        ))}
      </select>
    </div>
  );
}
