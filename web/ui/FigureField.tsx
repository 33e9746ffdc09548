import { type KeyboardEvent, useEffect, useId, useRef, useState } from "react";
import { asRun } from "../state/piece";

export interface FigureProps {
  label: string;
  value: number;
  least: number;
  most: number;
  /** For one press of an arrow key; ten times as much with Shift. */
  step?: number;
  onChange(value: number): void;
  hint?: string;
}

/** How the figures of a field are written and read. */
export interface Notation {
  unit: string;
  write(value: number): string;
  /** @returns `null` for what cannot be read */
  read(text: string): number | null;
  /** A figure with its unit, for sentences. */
  say(value: number): string;
  /** What a figure looks like. */
  example: string;
}

/** A figure to type or to step with the arrow keys. Out of bounds it says so and keeps what was there. */
export function FigureField({
  label,
  value,
  least,
  most,
  step = 0.5,
  onChange,
  hint,
  notation,
}: FigureProps & { notation: Notation }) {
  const { unit, write, read, say, example } = notation;
  const written = write(value);
  const [text, setText] = useState(written);
  const [error, setError] = useState("");
  const id = useId();
  /** Something was typed that has not been taken: a figure that changes meanwhile, such as a measured one, does not replace it. */
  const typing = useRef(false);

  useEffect(() => {
    if (typing.current) return;
    setText(written);
    setError("");
  }, [written]);

  const commit = (typed: string) => {
    // What was only passed through stays exactly as it is, also where it is shown rounded.
    if (!typing.current) return;
    const figure = read(typed);
    if (figure === null) return setError(`"${typed.slice(0, 20)}" cannot be read. Try ${example}.`);
    if (figure < least || figure > most) return setError(`Between ${say(least)} and ${say(most)}, please.`);
    typing.current = false;
    setError("");
    setText(write(figure));
    if (figure !== value) onChange(figure);
  };

  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "Enter") commit(text);
    // What was taken may show before it has been measured: that is no longer being typed.
    if (event.key === "Escape" && typing.current) {
      // What is around the field stays open for this once.
      event.preventDefault();
      typing.current = false;
      setText(written);
      setError("");
    }
    if (event.key !== "ArrowUp" && event.key !== "ArrowDown") return;
    event.preventDefault();
    const by = (event.shiftKey ? 10 : 1) * step * (event.key === "ArrowUp" ? 1 : -1);
    const next = Math.min(most, Math.max(least, Math.round((value + by) * 1000) / 1000));
    typing.current = false;
    setText(write(next));
    if (next !== value) asRun(id, () => onChange(next));
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
          data-taken={text === written || undefined}
          aria-describedby={error || hint ? `${id}-note` : undefined}
          onChange={(event) => {
            typing.current = true;
            setText(event.target.value);
          }}
          onBlur={() => commit(text)}
          onKeyDown={onKeyDown}
        />
        <span className="figure pl-1 text-[12px] text-quiet">{unit}</span>
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
