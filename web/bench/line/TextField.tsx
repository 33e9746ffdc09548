import { graphemesOf, LIMITS, retype, type Word } from "@mend-joint/core/piece";
import { type ReactNode, type RefObject, useId, useRef, useState } from "react";
import { asRun } from "../../state/piece";
import { changePart } from "../parts";

interface Props {
  word: Word;
  label: string;
  input?: RefObject<HTMLInputElement | null>;
  /** What stands beside the text, and may put something into it. */
  beside?(insert: (more: string) => void): ReactNode;
}

/** The text of a line. */
export function TextField({ word, label, input, beside }: Props) {
  const id = useId();
  const own = useRef<HTMLInputElement>(null);
  const field = input ?? own;
  const [tooLong, setTooLong] = useState(0);

  const type = (text: string) => {
    const letters = graphemesOf(text).length;
    // Refused whole rather than cut off: what is there stays as it was.
    if (letters > LIMITS.letters) return setTooLong(letters);
    setTooLong(0);
    asRun(`text of ${word.id}`, () => changePart<Word>(word.id, (old) => retype(old, text.replace(/[\r\n\u2028\u2029]+/g, " "))));
  };
  const insert = (more: string) => {
    const at = field.current?.selectionStart ?? word.text.length;
    type(word.text.slice(0, at) + more + word.text.slice(at));
  };
  return (
    <div>
      <label htmlFor={id} className="block text-[13px] text-quiet">
        {label}
      </label>
      <div className="flex items-center gap-1 border-b border-quiet/50 focus-within:border-ink">
        <input
          id={id}
          ref={field}
          value={word.text}
          onChange={(event) => type(event.target.value)}
          aria-describedby={tooLong ? `${id}-note` : undefined}
          aria-invalid={tooLong > 0}
          data-taken
          className="w-full min-w-0 bg-transparent py-1.5 text-[17px] outline-none"
          placeholder="Type here"
          autoComplete="off"
          spellCheck={false}
          dir="auto"
        />
        {beside?.(insert)}
      </div>
      {tooLong > 0 && (
        <p id={`${id}-note`} role="alert" className="mt-1 text-[12px] text-falls">
          That would be {tooLong} letters; a line can have {LIMITS.letters}. Your line was left as it is.
        </p>
      )}
    </div>
  );
}
