/**
 * What a PDF page draws, word by word (ISO 32000-1, 7.2 and 7.8.2).
 */

export type Operand = number | string | Operand[] | null;

export class Operator {
  constructor(readonly name: string) {}
}

/** White space, and with it what else ends a word (ISO 32000-1, 7.2.2), by character code. */
const SPACES = "\0\t\n\f\r ";
const isSpace = codesOf(SPACES);
const endsWord = codesOf(`${SPACES}()<>[]{}/%`);

/** What is read is Latin-1: a byte to a character. */
function codesOf(characters: string): Uint8Array {
  const codes = new Uint8Array(256);
  for (const character of characters) codes[character.charCodeAt(0)] = 1;
  return codes;
}

/** Numbers, names (with their slash), arrays, and operators; strings and dictionaries are passed over. */
export function* tokens(text: string): Generator<Operand | Operator> {
  let i = 0;
  const n = text.length;
  const word = (from: number) => {
    let end = from;
    while (end < n && endsWord[text.charCodeAt(end)] !== 1) end++;
    return end;
  };
  const arrays: Operand[][] = [];
  const give = (value: Operand) => {
    const open = arrays[arrays.length - 1];
    if (open) open.push(value);
    return open === undefined;
  };
  while (i < n) {
    const c = text[i]!;
    if (isSpace[text.charCodeAt(i)] === 1) i++;
    else if (c === "%") {
      while (i < n && text[i] !== "\n" && text[i] !== "\r") i++;
    } else if (c === "(") {
      i = afterString(text, i);
      if (give(null)) yield null;
    } else if (c === "<") {
      i = text[i + 1] === "<" ? afterDictionary(text, i) : Math.max(i + 1, text.indexOf(">", i) + 1 || n);
      if (give(null)) yield null;
    } else if (c === "[") {
      arrays.push([]);
      i++;
    } else if (c === "]") {
      const done = arrays.pop() ?? [];
      i++;
      if (give(done)) yield done;
    } else if (c === "/") {
      const end = word(i + 1);
      const name = text.slice(i, end);
      i = Math.max(end, i + 1);
      if (give(name)) yield name;
    } else if (endsWord[text.charCodeAt(i)] === 1) i++;
    else {
      const end = word(i);
      const said = text.slice(i, end);
      i = end;
      const value = Number(said);
      if (said !== "" && !Number.isNaN(value)) {
        if (give(value)) yield value;
      } else if (said === "BI") {
        // The bytes of a picture in the text end with EI between white space.
        const stop = /[\s]EI(?=[\s]|$)/g;
        stop.lastIndex = i;
        const found = stop.exec(text);
        i = found ? stop.lastIndex : n;
      } else yield new Operator(said);
    }
  }
}

function afterString(text: string, from: number): number {
  let depth = 0;
  for (let i = from; i < text.length; i++) {
    if (text[i] === "\\") i++;
    else if (text[i] === "(") depth++;
    else if (text[i] === ")" && --depth === 0) return i + 1;
  }
  return text.length;
}

function afterDictionary(text: string, from: number): number {
  let depth = 0;
  for (let i = from; i < text.length; i++) {
    if (text[i] === "(") i = afterString(text, i) - 1;
    else if (text.startsWith("<<", i)) {
      depth++;
      i++;
    } else if (text.startsWith(">>", i)) {
      i++;
      if (--depth === 0) return i + 1;
    }
  }
  return text.length;
}
