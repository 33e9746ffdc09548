import type { SentenceChoice } from "@mend-joint/core/wording";
import { Fragment, type KeyboardEvent, type ReactNode, useId, useRef, useState } from "react";

interface Props<Key extends string> {
  /** Read out before the choices: what the sentence is about. */
  about: string;
  /** Seen before the first choice. */
  subject?: string;
  choices: readonly SentenceChoice<Key>[];
  /** The fields of a choice. */
  edit(key: Key): ReactNode;
}

/** A figure stays on one line with its unit. */
const together = (says: string) => says.replace(/(\d) (mm|in)\b/g, "$1\u00a0$2");

/**
 * What has been decided, as one sentence. A press on a choice opens its fields below, Escape closes them; what is as usual waits behind
 * "more".
 */
export function Sentence<Key extends string>({ about, subject, choices, edit }: Props<Key>) {
  const id = useId();
  const [open, setOpen] = useState<Key | null>(null);
  const [all, setAll] = useState(false);
  const root = useRef<HTMLDivElement>(null);
  const opened = choices.find(({ key }) => key === open);
  const shown = choices.filter(({ usual, key }) => !usual || all || key === open);
  const waiting = choices.length - shown.length;

  const close = () => {
    root.current?.querySelector<HTMLElement>(`[data-choice="${open}"]`)?.focus();
    setOpen(null);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    // A field takes back what was typed at the first Escape.
    if (event.key !== "Escape" || !opened || event.defaultPrevented) return;
    event.stopPropagation();
    close();
  };
  return (
    <div ref={root} className="flex flex-col gap-2" onKeyDown={onKeyDown}>
      <p className="text-[14px] leading-[1.75] text-quiet">
        {subject && `${subject} `}
        {shown.map(({ key, label, lead, says }, i) => (
          <Fragment key={key}>
            {i > 0 && (i === shown.length - 1 ? " and " : ", ")}
            {shown[i - 1]?.lead !== lead && `${lead} `}
            {/* A button of the browser is one block, and would not run on with the sentence. */}
            <span
              role="button"
              tabIndex={0}
              data-choice={key}
              aria-expanded={open === key}
              aria-controls={open === key ? id : undefined}
              aria-label={`${label}: ${says}`}
              onClick={() => setOpen(open === key ? null : key)}
              onKeyDown={(event) => {
                if (event.key !== "Enter" && event.key !== " ") return;
                event.preventDefault();
                setOpen(open === key ? null : key);
              }}
              className="cursor-pointer rounded-sm box-decoration-clone font-medium text-ink underline decoration-quiet/50 decoration-dotted underline-offset-4 hover:decoration-ink hover:decoration-solid aria-expanded:bg-ink aria-expanded:px-1 aria-expanded:py-0.5 aria-expanded:text-film aria-expanded:no-underline"
            >
              {together(says)}
            </span>
          </Fragment>
        ))}
        .{" "}
        {(waiting > 0 || all) && (
          <button
            type="button"
            aria-expanded={all}
            aria-label={`${all ? "Less" : "More"} about ${about}`}
            onClick={() => setAll(!all)}
            className="text-quiet underline-offset-4 hover:text-ink hover:underline"
          >
            {all ? "less" : "more"}
          </button>
        )}
      </p>
      {opened && (
        <div id={id} role="group" aria-label={opened.label} className="flex flex-col gap-3 border-l-2 border-ink pl-3">
          {edit(opened.key)}
        </div>
      )}
    </div>
  );
}
