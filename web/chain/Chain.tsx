/**
 * The letter chain: the sentence in its own shapes, with links as thick as the joints, posts down to the holder's rail.
 * Also the keyboard's way through the piece: arrow keys go from letter to letter, Home and End to the first and last, Enter takes one in
 * the hand, with Shift one more.
 */
import type { Examination } from "@mend-joint/core";
import { multiply, type Region, regionBox, rotation, transformRegion } from "@mend-joint/core/geometry";
import { isNarrower } from "@mend-joint/core/judge";
import { formatLength, formatNumber } from "@mend-joint/core/piece";
import { type ChainLetter, type ChainLink, chainOf } from "@mend-joint/core/report";
import { nameOf } from "@mend-joint/core/wording";
import { type KeyboardEvent, useMemo, useRef } from "react";
import { regionPath } from "../stage/paths";
import { pointAt, selectionOf, useBench, withLetter } from "../state/bench";

const LETTER_HEIGHT = 40;
const PX_PER_MM = 2.2;
const thickness = (mm: number) => Math.min(15, Math.max(2, mm * PX_PER_MM));

export function Chain({ examination }: { examination: Examination }) {
  const letters = useMemo(() => chainOf(examination), [examination]);
  const holder = examination.solids.some((solid) => solid.holder);
  const scale = useMemo(() => scaleOf(examination), [examination]);
  const row = useRef<HTMLDivElement>(null);

  const onKeyDown = (event: KeyboardEvent) => {
    const buttons = [...row.current!.querySelectorAll("button")];
    if (event.key === "Home" || event.key === "End") {
      event.preventDefault();
      buttons.at(event.key === "Home" ? 0 : -1)?.focus();
      return;
    }
    if (event.key !== "ArrowLeft" && event.key !== "ArrowRight") return;
    const selected = (event.target as HTMLElement).getAttribute("aria-pressed") === "true";
    // Arrow keys move the letter in the hand; they walk along the chain only while the hand is empty.
    if (selected) return;
    event.preventDefault();
    const at = buttons.indexOf(event.target as HTMLButtonElement);
    buttons[at + (event.key === "ArrowRight" ? 1 : -1)]?.focus();
  };

  return (
    <section
      id="letters"
      tabIndex={-1}
      aria-label="Letter chain"
      data-hand
      className="border-t border-rule bg-ground px-4 pt-2 pb-3"
    >
      {letters.length === 0 ? (
        <p className="py-9 text-center text-[13px] text-quiet">
          {examination.ghosts.length > 0
            ? "The letters are engraved or cut out: there is nothing of them that could fall."
            : "The letters of your words will hang here, each with the joints that hold it."}
        </p>
      ) : (
        <div ref={row} onKeyDown={onKeyDown} className="overflow-x-auto">
          <div className="mx-auto w-max min-w-0 px-3">
            <div className="flex items-start">
              {letters.map((letter) => (
                <LetterCell key={letter.id} letter={letter} examination={examination} scale={scale} holder={holder} />
              ))}
            </div>
            {holder && <div className="h-[7px] rounded-full bg-ink" role="presentation" />}
          </div>
        </div>
      )}
    </section>
  );
}

/** A letter's outlines as they stand upright on a baseline of 0, whatever line it stands on in the piece. */
function upright(
  { solids, stand, angle }: Pick<ChainLetter, "solids" | "stand" | "angle">,
  all: Examination["solids"],
): Region[] {
  const matrix = multiply(rotation(-angle), [1, 0, 0, 1, -stand.x, -stand.y]);
  return solids.map((i) => transformRegion(all[i]!.region, matrix));
}

/** One scale for the whole sentence, so that the tallest letter fills the height. */
function scaleOf({ letters, solids }: Examination): number {
  let tallest = 1;
  for (const letter of letters) {
    for (const region of upright(letter, solids)) {
      const box = regionBox(region);
      if (box) tallest = Math.max(tallest, box.maxY - box.minY);
    }
  }
  return LETTER_HEIGHT / (tallest * 1.25);
}

function LetterCell({
  letter,
  examination,
  scale,
  holder,
}: {
  letter: ChainLetter;
  examination: Examination;
  scale: number;
  holder: boolean;
}) {
  const selection = useBench((state) => state.selection);
  const units = useBench((state) => state.units);
  const { solids } = examination;
  const ids = letter.solids.map((i) => solids[i]!.id);
  const selected = selection?.solids.includes(letter.id) ?? false;
  const state = letter.falls ? "falls" : letter.weak ? "weak" : "holds";
  const loose = letter.dots.filter((dot) => dot.falls);
  const parts = [
    nameOf(solids[letter.solids[0]!]?.label),
    letter.falls
      ? "falls off"
      : `held by ${formatLength(letter.hold, units)}, ${letter.ties} ${letter.ties === 1 ? "tie" : "ties"}`,
    ...loose.map((dot) => `${nameOf(solids[dot.solid]!.label)} falls off`),
    letter.next
      ? letter.next.width === null
        ? "not joined to the next"
        : `joined to the next by ${formatLength(letter.next.width, units)}`
      : "",
  ];
  return (
    <div className="flex items-stretch">
      <button
        type="button"
        aria-pressed={selected}
        aria-label={parts.filter(Boolean).join(", ")}
        className={`group relative flex flex-col items-center rounded-t-lg px-1 pt-3 outline-offset-[-2px] ${selected ? "bg-focus/12" : "hover:bg-ink/6"}`}
        onPointerEnter={() => pointAt(ids)}
        onPointerLeave={() => pointAt([])}
        onFocus={() => pointAt(ids)}
        onBlur={() => pointAt([])}
        onClick={({ shiftKey }) => {
          const own = selectionOf(examination, letter.id);
          const held = useBench.getState().selection;
          if (shiftKey && own) useBench.setState({ selection: withLetter(examination, held, own) });
          else useBench.setState({ selection: selected ? null : own });
        }}
      >
        {!letter.falls && letter.ties > 1 && (
          <span
            className="figure absolute top-0 rounded-full bg-holds/12 px-1 text-[10px] leading-[14px] font-semibold text-holds"
            title={`Held ${letter.ties} times: one joint may break and it stays`}
            aria-hidden="true"
          >
            {letter.ties}×
          </span>
        )}
        <LetterShape letter={letter} examination={examination} scale={scale} />
        {holder && <Posts posts={letter.posts} state={state} />}
      </button>
      {letter.next && <Link link={letter.next} examination={examination} />}
      {!letter.next && <span className="w-5" />}
    </div>
  );
}

function LetterShape({ letter, examination, scale }: { letter: ChainLetter; examination: Examination; scale: number }) {
  const regions = useMemo(() => upright(letter, examination.solids), [letter, examination]);
  const boxes = regions.map((region) => regionBox(region)!);
  const minX = Math.min(...boxes.map((box) => box.minX));
  const maxX = Math.max(...boxes.map((box) => box.maxX));
  const width = Math.max(8, (maxX - minX) * scale);
  const dotFalls = new Set(letter.dots.filter((dot) => dot.falls).map((dot) => dot.solid));
  return (
    <svg width={width} height={LETTER_HEIGHT + 8} aria-hidden="true" className="overflow-visible">
      <g transform={`translate(${-minX * scale} ${LETTER_HEIGHT - 6}) scale(${scale} ${-scale})`}>
        {letter.solids.map((i, n) => {
          const falls = n === 0 ? letter.falls : dotFalls.has(i);
          return (
            <path
              key={i}
              d={regionPath(regions[n]!)}
              fillRule="evenodd"
              fill={falls ? "transparent" : "var(--color-ink)"}
              stroke={falls ? "var(--color-falls)" : "none"}
              strokeWidth={1.6}
              strokeDasharray="1 3"
              strokeLinecap="round"
              vectorEffect="non-scaling-stroke"
            />
          );
        })}
      </g>
    </svg>
  );
}

function Link({ link, examination }: { link: ChainLink; examination: Examination }) {
  const units = useBench((state) => state.units);
  const weak = link.width !== null && isNarrower(link.width, examination.leastWidth);
  const colour = weak ? "bg-weak" : "bg-holds";
  return (
    <div
      className="flex w-7 flex-col items-center"
      onPointerEnter={() => pointAt([], link.joint)}
      onPointerLeave={() => pointAt([])}
      title={link.width === null ? "Not joined to each other" : `Joint ${formatLength(link.width, units, 2)}`}
    >
      <div className="flex h-[60px] w-full items-center">
        {link.width === null ? (
          <div className="h-4 w-full" />
        ) : (
          <div
            className={`w-full ${colour} ${weak ? "rounded-none [clip-path:polygon(0_0,100%_0,72%_50%,100%_100%,0_100%,28%_50%)]" : "rounded-[2px]"}`}
            style={{ height: Math.max(weak ? 6 : 2, thickness(link.width)) }}
          />
        )}
      </div>
      <span className={`figure text-[11px] leading-none ${weak ? "font-semibold text-weak" : "text-quiet"}`}>
        {link.width === null ? "–" : formatNumber(link.width, units)}
      </span>
    </div>
  );
}

function Posts({ posts, state }: { posts: ChainLink[]; state: "holds" | "weak" | "falls" }) {
  if (posts.length === 0) return <span className="h-[20px]" />;
  const colour = state === "weak" ? "bg-weak" : "bg-ink";
  return (
    <span className="flex h-[20px] gap-[3px]">
      {posts.slice(0, 4).map((post, i) => (
        <span
          // biome-ignore lint/suspicious/noArrayIndexKey: posts have no name of their own
          key={i}
          className={`h-full ${colour} hover:bg-focus`}
          style={{ width: thickness(post.width ?? 0) }}
          onPointerEnter={() => pointAt([], post.joint)}
        />
      ))}
    </span>
  );
}
