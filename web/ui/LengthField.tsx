import { editableNumber, formatLength, parseLength } from "@mend-joint/core/piece";
import { type KeyboardEvent, useEffect, useId, useState } from "react";
import { useBench } from "../state/bench";

interface Props {
  label: string;
  /** mm */
  value: number;
  least: number;
  most: number;
  /** mm for one press of an arrow key */
  step?: number;
  onChange(mm: number): void;
  hint?: string;
}

/** A length that can be typed as it is spoken: 12, 1/4 in, 3.5 mm. Out of bounds it says so and keeps what was there. */
export function LengthField({ label, value, least, most, step = 0.5, onChange, hint }: Props) {
  const units = useBench((state) => state.units);
  const [text, setText] = useState(editableNumber(value, units));
  const [error, setError] = useState("");
  const id = useId();

  useEffect(() => {
    setText(editableNumber(value, units));
    setError("");
  }, [value, units]);

  const commit = (typed: string) => {
    const mm = parseLength(typed, units);
    if (mm === null) return setError(`"${typed.slice(0, 20)}" is not a length. Try 12 mm or 1/2 in.`);
    if (mm < least || mm > most)
      return setError(`Between ${formatLength(least, units)} and ${formatLength(most, units)}, please.`);
    setError("");
    setText(editableNumber(mm, units));
    if (mm !== value) onChange(mm);
  };

  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "Enter") commit(text);
    if (event.key === "Escape") {
      setText(editableNumber(value, units));
      setError("");
    }
    if (event.key !== "ArrowUp" && event.key !== "ArrowDown") return;
    event.preventDefault();
    const by = (event.shiftKey ? 10 : 1) * step * (event.key === "ArrowUp" ? 1 : -1);
    const next = Math.min(most, Math.max(least, Math.round((value + by) * 1000) / 1000));
    if (next !== value) onChange(next);
  };

  return (
    <div className="min-w-0">
      <label htmlFor={id} className="block text-[13px] text-quiet">
        {label}
      </label>
      <div className="mt-0.5 flex items-baseline border-b border-quiet/50 focus-within:border-ink">
        <input
          id={id}
          className="figure w-full min-w-0 bg-transparent py-1 text-[14px] outline-none"
          inputMode="decimal"
          value={text}
          aria-invalid={error !== ""}
          aria-describedby={error || hint ? `${id}-note` : undefined}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => commit(text)}
          onKeyDown={onKeyDown}
        />
        <span className="figure pl-1 text-[12px] text-quiet">{units}</span>
      </div>
      {(error || hint) && (
        <p
          id={`${id}-note`}
          role={error ? "alert" : undefined}
          className={`mt-1 text-[12px] ${error ? "text-falls" : "text-quiet"}`}
        >
          {error || hint}
        </p>
      )}
    </div>
  );
}
