/**
 * Mends that change the word or one of its letters.
 */
import type { Solid } from "../examine";
import { regionArea } from "../geometry";
import { changeLetter, graphemesOf, type Piece, type Word } from "../piece";
import {
  type Attempt,
  changeWord,
  doneOrNot,
  isDot,
  keyOf,
  largerBy,
  round,
  type Scene,
  thickerBy,
  wantedAt,
  wordOf,
} from "./scene";

/** Letterforms of one letter that are tried. */
const FORMS = 3;
const FEW = 2;
/** A loose piece of less area than so many squares of the least width may be left out rather than tied. */
const SPECK = 1;

/** All strokes of the word grow. */
export function thicken({ piece, hanging, finding, examination }: Scene): Attempt | null {
  const word = wordOf(piece, hanging);
  if (!word) return null;
  // Every stroke and nearly every joint grows by just so much.
  const missing = wantedAt(finding, examination) - finding.width;
  return {
    kind: "thicken",
    action: (by) => ({ does: "thicken", by }),
    least: 0,
    most: 3,
    amounts: thickerBy(missing, 3),
    apply: (now, amount) => changeWord(now, word.id, (old) => ({ ...old, thicken: round(Math.min(10, old.thicken + amount)) })),
  };
}

export function larger({ piece, hanging, finding, examination }: Scene): Attempt | null {
  const word = wordOf(piece, hanging);
  if (!word || finding.width <= 0) return null;
  return {
    kind: "larger",
    action: () => ({ does: "larger" }),
    least: 0,
    most: 1,
    amounts: largerBy(wantedAt(finding, examination), finding.width),
    apply: (now, amount) =>
      changeWord(now, word.id, (old) => ({
        ...old,
        size: { ...old.size, mm: round(Math.min(old.size.by === "width" ? 1000 : 500, old.size.mm * (1 + amount))) },
      })),
  };
}

/** Sizes that are tried for letters that find no room, as shares. */
const SMALLER = [0.95, 0.9, 0.8, 0.7, 0.6, 0.5];

/** Letters that stand beyond the end of their line become smaller with all others. */
export function smaller({ piece, finding }: Scene): Attempt | null {
  const word = piece.parts.find((part): part is Word => part.kind === "word" && finding.parts[0]!.startsWith(`${part.id}:`));
  if (!word) return null;
  return {
    kind: "smaller",
    action: (share) => ({ does: "smaller", share }),
    least: 0,
    most: 1,
    amounts: SMALLER,
    apply: (now, share) =>
      changeWord(now, word.id, (old) => ({ ...old, size: { ...old.size, mm: Math.max(1, round(old.size.mm * share)) } })),
  };
}

/** One of the letters takes another form that the font has for it. */
export function letterforms({ piece, hanging, library }: Scene): Attempt[] {
  const letters = hanging.filter((solid) => solid.letterId && solid.id === solid.letterId);
  // What many letters hang on is not mended by the form of one.
  if (letters.length > FEW) return [];
  return letters.flatMap((solid) => {
    const { wordId, key } = keyOf(solid);
    const word = wordOf(piece, [solid]);
    const font = word && library.font(word.font);
    const index = word?.keys.indexOf(key) ?? -1;
    if (!word || !font || index < 0) return [];
    const graphemes = graphemesOf(word.text);
    const start = graphemes.slice(0, index).join("").length;
    const forms = font.formsOf(word.text, start, start + graphemes[index]!.length);
    return forms.slice(0, FORMS).map(
      (form): Attempt => ({
        kind: "letterform",
        action: () => ({ does: "other form", letter: solid.label.text }),
        least: 0,
        most: 1,
        amounts: [1],
        apply: (now) => changeLetter(now, wordId, key, (old) => ({ ...old, form })),
      }),
    );
  });
}

/** What belongs to nothing is left out: a tie that ties nothing, a speck. */
export function leaveOut({ piece, examination, hanging }: Scene): Attempt | null {
  const [stray] = hanging;
  const apply = stray && hanging.length === 1 ? (withoutTie(piece, stray) ?? withoutSpeck(stray, examination.leastWidth)) : null;
  if (!stray || !apply) return null;
  return doneOrNot("leave-out", "leave out", apply, [stray.id]);
}

function withoutTie(piece: Piece, { id }: Solid): ((now: Piece) => Piece) | null {
  if (!piece.parts.some((part) => part.id === id && part.kind === "tie")) return null;
  return (now) => ({ ...now, parts: now.parts.filter((part) => part.id !== id) });
}

function withoutSpeck(speck: Solid, leastWidth: number): ((now: Piece) => Piece) | null {
  if (!speck.letterId || !isDot(speck)) return null;
  if (speck.label.kind !== "speck" && regionArea(speck.region) > SPECK * leastWidth ** 2) return null;
  const island = Number(speck.id.slice(speck.letterId.length + 1));
  const { wordId, key } = keyOf(speck);
  return (now) => changeLetter(now, wordId, key, (old) => ({ ...old, without: [...(old.without ?? []), island] }));
}
