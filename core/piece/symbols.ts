/**
 * Symbols that stand in a text like letters: ordinary Unicode characters, drawn with outlines of our own.
 */
export const SYMBOLS = {
  heart: "♥",
  star: "★",
  disc: "●",
  ring: "○",
  diamond: "◆",
  sun: "☀",
  moon: "☾",
  anchor: "⚓",
  wave: "∿",
  fish: "🐟",
  shell: "🐚",
  leaf: "🍃",
  crown: "👑",
  paw: "🐾",
  arrow: "➳",
  flourish: "❧",
} as const;

export type SymbolName = keyof typeof SYMBOLS;

export const SYMBOL_NAMES = Object.keys(SYMBOLS) as [SymbolName, ...SymbolName[]];

const BY_CHARACTER = new Map<string, SymbolName>(SYMBOL_NAMES.map((name) => [SYMBOLS[name], name]));

/** @param letter a grapheme cluster, with or without a variation selector @returns the symbol that it stands for */
export function symbolOf(letter: string): SymbolName | undefined {
  return BY_CHARACTER.get(letter.replace(/[\uFE0E\uFE0F]/g, ""));
}
