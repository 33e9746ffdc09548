/**
 * What the colours on the stage stand for.
 */
interface Entry {
  colour: string;
  /** Height of its stroke, px. */
  thick: number;
  text: string;
}

export function Legend({ label, entries }: { label: string; entries: readonly Entry[] }) {
  return (
    <ul
      className="flex flex-wrap items-center justify-end gap-x-3 rounded-2xl bg-film/90 px-3 py-1 text-[12px] text-quiet"
      aria-label={label}
    >
      {entries.map(({ colour, thick, text }) => (
        <li key={text} className="flex items-center gap-1.5 whitespace-nowrap">
          <span className="w-4 rounded-full" style={{ background: colour, height: thick }} />
          <span className="figure">{text}</span>
        </li>
      ))}
    </ul>
  );
}

/** Height that a legend takes from a stage so wide, px: on a narrow one it has two rows. */
export const legendHeight = (width: number): number => (width < 520 ? 48 : 28);
