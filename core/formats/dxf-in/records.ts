/**
 * A DXF in text form as records: what begins with a group of code 0, with all its groups in their order (Autodesk, "DXF Reference", chapter
 * 1 "DXF Format", from memory).
 */
import { DrawingError } from "../drawing";

export interface Group {
  code: number;
  value: string;
}

/** An entity, a block or an entry of a table. */
export interface DxfRecord {
  type: string;
  groups: Group[];
  /** Of a polyline of the old kind. */
  vertices: DxfRecord[];
}

export interface DxfBlock {
  record: DxfRecord;
  entities: DxfRecord[];
}

export interface DxfFile {
  /** Value of $INSUNITS; 0 where it is not said. */
  units: number;
  /** By their names, as `sameName` has them. */
  layers: ReadonlyMap<string, DxfRecord>;
  blocks: ReadonlyMap<string, DxfBlock>;
  entities: readonly DxfRecord[];
}

/** Pairs of group code and value. */
const MOST_PAIRS = 8_000_000;
/** Group codes whose values are numbers (DXF reference, "Group Code Value Types"). */
const isNumber = (code: number) => (code >= 10 && code <= 99) || (code >= 110 && code <= 179) || (code >= 210 && code <= 289);
/** From this one on groups are notes of programs to themselves. */
const NOTES = 1000;
/** What comes after it in an entity is another object, with groups of its own. */
const EMBEDDED = 101;

/** The first value of a code, as a number. */
export function numberOf({ groups }: DxfRecord, code: number, otherwise = 0): number {
  const found = groups.find((group) => group.code === code);
  return found ? Number(found.value) : otherwise;
}

export const textOf = ({ groups }: DxfRecord, code: number): string | undefined =>
  groups.find((group) => group.code === code)?.value;

export const allOf = ({ groups }: DxfRecord, code: number): number[] =>
  groups.flatMap((group) => (group.code === code ? [Number(group.value)] : []));

/** Whether a bit of a flag is set. */
export const hasFlag = (record: DxfRecord, code: number, flag: number): boolean =>
  (Math.trunc(numberOf(record, code)) & flag) !== 0;

/** @throws DrawingError with the line of what is damaged */
export function parseDxf(text: string): DxfFile {
  if (!/^\s*0\s*[\r\n]+\s*SECTION/i.test(text.replace(/^(\s*999[^\n]*\n[^\n]*\n)+/, "")))
    throw new DrawingError("This is not a DXF: it does not begin with a section");
  const file = {
    units: 0,
    layers: new Map<string, DxfRecord>(),
    blocks: new Map<string, DxfBlock>(),
    entities: [] as DxfRecord[],
  };
  let section = "";
  let block: DxfBlock | undefined;
  let polyline: DxfRecord | undefined;
  let hasEntities = false;
  for (const record of recordsOf(text)) {
    if (record.type === "SECTION") {
      section = textOf(record, 2)?.toUpperCase() ?? "";
      hasEntities ||= section === "ENTITIES";
      if (section === "HEADER") file.units = unitsIn(record);
    } else if (record.type === "ENDSEC") section = "";
    else if (section === "TABLES" && record.type === "LAYER") file.layers.set(sameName(textOf(record, 2) ?? ""), record);
    else if (section === "BLOCKS" && record.type === "BLOCK") {
      block = { record, entities: [] };
      file.blocks.set(sameName(textOf(record, 2) ?? ""), block);
    } else if (section === "BLOCKS" && record.type === "ENDBLK") block = undefined;
    else if (section === "ENTITIES" || (section === "BLOCKS" && block)) {
      if (record.type === "VERTEX") polyline?.vertices.push(record);
      if (record.type === "VERTEX" || record.type === "SEQEND") continue;
      polyline = record.type === "POLYLINE" ? record : undefined;
      (section === "ENTITIES" ? file.entities : block!.entities).push(record);
    }
  }
  if (!hasEntities) throw new DrawingError("The DXF has no section of entities. Save it again from the program it came from.");
  return file;
}

/** Names of layers and blocks are the same in capitals and small letters. */
export const sameName = (name: string): string => name.toUpperCase();

/** Variables of the header all stand in the record that opens it. */
function unitsIn({ groups }: DxfRecord): number {
  const at = groups.findIndex(({ code, value }) => code === 9 && value === "$INSUNITS");
  return at === -1 ? 0 : Number(groups[at + 1]?.value ?? 0);
}

/**
 * All records up to the end of the file.
 *
 * @throws DrawingError for what is no pair of code and value, no number where one has to be, or not ended
 */
function* recordsOf(text: string): Generator<DxfRecord> {
  const damaged = (line: number, what: string) =>
    new DrawingError(`The DXF is damaged: line ${line} ${what}. Save it again from the program it came from.`);
  let line = 0;
  let record: DxfRecord | undefined;
  // A polyline of the old kind goes on until it is ended.
  let open = false;
  let embedded = false;
  for (let at = 0; at < text.length; ) {
    const [code, afterCode] = lineAt(text, at);
    if (code === "" && text.slice(at).trim() === "") break;
    if (!/^-?\d{1,4}$/.test(code)) throw damaged(line + 1, `has no group code, but “${code.slice(0, 20)}”`);
    const [value, afterValue] = lineAt(text, afterCode);
    if (afterCode >= text.length && value === "") throw damaged(line + 1, "is the last one, and its value is missing");
    const group = { code: Number(code), value };
    if (isNumber(group.code) && (value === "" || !Number.isFinite(Number(value))))
      throw damaged(line + 2, `is no number, but “${value.slice(0, 20)}”`);
    line += 2;
    if (line > 2 * MOST_PAIRS) throw new DrawingError(`The file has more than ${MOST_PAIRS / 1e6} million values`);
    at = afterValue;
    if (group.code !== 0) {
      embedded ||= group.code === EMBEDDED;
      if (group.code < NOTES && group.code !== 999 && !embedded) record?.groups.push(group);
      continue;
    }
    if (open && value !== "VERTEX" && value !== "SEQEND")
      throw damaged(line, "begins something else before a polyline has ended");
    open = value === "POLYLINE" || (open && value === "VERTEX");
    embedded = false;
    if (record) yield record;
    if (value === "EOF") return;
    record = { type: value.toUpperCase(), groups: [], vertices: [] };
  }
  throw new DrawingError("The DXF breaks off before its end. Save it again from the program it came from.");
}

/** @returns the line without blanks around it, and where the next one begins */
function lineAt(text: string, at: number): [string, number] {
  const end = text.indexOf("\n", at);
  return end === -1 ? [text.slice(at).trim(), text.length] : [text.slice(at, end).trim(), end + 1];
}
