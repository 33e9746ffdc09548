import type { Column, ListRow } from "@mend-joint/core/runs";
import { REGATTA_CREW } from "@mend-joint/demo/crew";
import { FileUp } from "lucide-react";
import { useId, useRef } from "react";
import { toast } from "sonner";
import { type Listed, textOfFile } from "./useListed";

const EXAMPLE = "Isolde\nJiří\nZoë\nBjørn\n…";

/** The list itself, and what was understood of it. */
export function ListField({ listed, lines }: { listed: Listed; lines: number }) {
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  const { text, setText, list, fault } = listed;
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      setText(await textOfFile(file));
    } catch (error) {
      toast.error(`${(error as Error).message}.`);
    }
  };
  return (
    <section
      aria-label="The list"
      className="flex shrink-0 flex-col gap-3 px-5 py-4 md:min-h-0 md:shrink"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        void take(event.dataTransfer.files[0]);
      }}
    >
      <div className="flex items-baseline justify-between gap-2">
        <label htmlFor={id} className="font-display text-[19px] font-semibold">
          The names
        </label>
        <button
          type="button"
          className="inline-flex items-center gap-1.5 text-[13px] text-quiet underline underline-offset-4 hover:text-ink"
          onClick={() => input.current?.click()}
        >
          <FileUp size={14} aria-hidden="true" /> Choose a file
        </button>
        <input
          ref={input}
          type="file"
          accept=".csv,.tsv,.txt,.xlsx"
          aria-label="File with the list"
          className="sr-only"
          tabIndex={-1}
          onChange={(event) => {
            void take(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </div>
      <textarea
        id={id}
        value={text}
        placeholder={EXAMPLE}
        spellCheck={false}
        // The page is for this.
        autoFocus
        onChange={(event) => setText(event.target.value)}
        className="min-h-[200px] flex-1 resize-none rounded-xl border border-quiet/40 bg-film p-3 text-[15px] leading-relaxed outline-none placeholder:text-quiet/60 focus:border-ink"
      />
      {text === "" && (
        <div className="text-[13px] text-quiet">
          <p>
            One name on each line, pasted or typed; or drop a file here (CSV, TSV or XLSX). Further columns may be a second line,
            how many, and a note.
          </p>
          <button
            type="button"
            className="mt-2 underline underline-offset-4 hover:text-ink"
            onClick={() => setText(REGATTA_CREW.join("\n"))}
          >
            Try it with the crew of the regatta, 40 names
          </button>
        </div>
      )}
      {fault && (
        <p role="alert" className="text-[14px] text-falls">
          {fault}
        </p>
      )}
      {list && (
        <div className="flex shrink-0 flex-col gap-2 text-[13px]">
          <Columns listed={listed} lines={lines} />
          <Remarks rows={list.rows} notes={list.notes} />
        </div>
      )}
    </section>
  );
}

const NUMBERS = ["first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth", "tenth"];

/** What each column is for, where there are several. */
function Columns({ listed: { list, setColumn }, lines }: { listed: Listed; lines: number }) {
  if (!list || list.columns.length < 2) return null;
  const uses = [
    ...Array.from({ length: lines }, (_, i) => ({ value: String(i), text: lines === 1 ? "the name" : `${NUMBERS[i]} line` })),
    { value: "count", text: "how many" },
    { value: "note", text: "note" },
    { value: "unused", text: "not used" },
  ];
  return (
    <table className="w-full">
      <caption className="sr-only">What each column is for</caption>
      <tbody>
        {list.columns.slice(0, 12).map((column, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: columns have no name but their place
          <tr key={i} className="border-t border-rule">
            <td className="max-w-[140px] truncate py-1 pr-2 text-quiet">
              {list.headings?.[i] || list.sample[0]?.[i] || `column ${i + 1}`}
            </td>
            <td>
              <select
                aria-label={`Column ${i + 1} is`}
                value={String(column)}
                onChange={({ target: { value } }) => setColumn(i, /^\d+$/.test(value) ? Number(value) : (value as Column))}
                className="w-full bg-transparent py-1 font-medium"
              >
                {uses.map((use) => (
                  <option key={use.value} value={use.value}>
                    {use.text}
                  </option>
                ))}
              </select>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Troubles that are told at once; more of them as a number. */
const SOME = 4;

function Remarks({ rows, notes }: { rows: readonly ListRow[]; notes: readonly string[] }) {
  const wrong = rows.filter(({ problem }) => problem);
  const doubles = rows.filter(({ sameAs }) => sameAs !== undefined);
  return (
    <>
      {wrong.slice(0, SOME).map(({ number, line, problem }) => (
        <p key={number} className="text-falls">
          Line {line}: {problem}
        </p>
      ))}
      {wrong.length > SOME && <p className="text-falls">And {wrong.length - SOME} more lines that cannot be made.</p>}
      {doubles.length > 0 && (
        <p className="text-weak">
          {doubles.length === 1
            ? `“${doubles[0]!.texts.filter(Boolean).join(" ")}” stands twice. Both are made.`
            : `${doubles.length} names stand twice or more. All are made.`}
        </p>
      )}
      {notes.map((note) => (
        <p key={note} className="text-quiet">
          {note}
        </p>
      ))}
    </>
  );
}
