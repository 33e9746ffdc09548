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
  boat: "⛵",
  lighthouse: "⛯",
  helm: "⎈",
  whale: "🐋",
  crab: "🦀",
  drop: "💧",
  fir: "🌲",
  tree: "🌳",
  flower: "🌼",
  tulip: "🌷",
  clover: "🍀",
  mushroom: "🍄",
  apple: "🍎",
  pear: "🍐",
  cherries: "🍒",
  acorn: "🌰",
  feather: "🪶",
  cat: "🐈",
  rabbit: "🐰",
  bird: "🐦",
  duck: "🦆",
  hen: "🐔",
  butterfly: "🦋",
  snail: "🐌",
  bear: "🐻",
  bone: "🦴",
  house: "🏠",
  bell: "🔔",
  key: "🔑",
  gift: "🎁",
  balloon: "🎈",
  cup: "☕",
  cupcake: "🧁",
  note: "♫",
  bow: "🎀",
  candle: "🕯",
  umbrella: "☂",
  gear: "⚙",
  cloud: "☁",
  snowflake: "❄",
  mountain: "⛰",
  lightning: "⚡",
  flame: "🔥",
} as const;

export type SymbolName = keyof typeof SYMBOLS;

export const SYMBOL_NAMES = Object.keys(SYMBOLS) as [SymbolName, ...SymbolName[]];

/** Characters that stand for outlines of the maker's own, each word with its own: Ⓐ to Ⓩ. */
export const OWN_MARKS = Array.from({ length: 26 }, (_, i) => String.fromCodePoint(0x24b6 + i)) as [string, ...string[]];

const BY_CHARACTER = new Map<string, SymbolName>(SYMBOL_NAMES.map((name) => [SYMBOLS[name], name]));

/** @param letter a grapheme cluster, with or without a variation selector @returns the symbol that it stands for */
export function symbolOf(letter: string): SymbolName | undefined {
  return BY_CHARACTER.get(letter.replace(/[\uFE0E\uFE0F]/g, ""));
}
