import { useEffect, useId, useRef, useState } from "react";

interface Props {
  label: string;
  hint: string;
  value: number | null;
  write(value: number): string;
  /** @returns `null` for what cannot be read, or a sentence about what cannot be */
  read(text: string): number | string | null;
  example: string;
  onChange(value: number | null): void;
}

/** Something that was read off, or not yet. */
export function ReadingField({ label, hint, value, write, read, example, onChange }: Props) {
  const written = value === null ? "" : write(value);
  const [text, setText] = useState(written);
  const [error, setError] = useState("");
  const typing = useRef(false);
  const id = useId();
  useEffect(() => {
    if (typing.current) return;
    setText(written);
    setError("");
  }, [written]);
  const commit = () => {
    if (!typing.current) return;
    const figure = text.trim() === "" ? null : read(text);
    if (typeof figure === "string") return setError(figure);
    if (figure === null && text.trim() !== "") return setError(`"${text.slice(0, 20)}" cannot be read. Try ${example}.`);
    typing.current = false;
    setError("");
    onChange(figure);
  };
  return (
    <div>
      <label htmlFor={id} className="block text-[13px] text-quiet">
        {label}
      </label>
      <input
        id={id}
        value={text}
        placeholder="not read yet"
        aria-describedby={`${id}-hint`}
        aria-invalid={error !== ""}
        onChange={(event) => {
          typing.current = true;
          setText(event.target.value);
        }}
        onBlur={commit}
        onKeyDown={(event) => event.key === "Enter" && commit()}
        className="figure mt-0.5 w-full border-b border-quiet/50 bg-transparent py-1.5 text-[14px] hover:border-ink aria-invalid:border-falls"
      />
      <p
        id={`${id}-hint`}
        className={`mt-1 text-[12px] leading-snug ${error ? "text-falls" : "text-quiet"}`}
        role={error ? "alert" : undefined}
      >
        {error || hint}
      </p>
    </div>
  );
}
