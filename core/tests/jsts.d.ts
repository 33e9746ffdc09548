/** The little of jsts (tests only) that is used. */
declare module "jsts/org/locationtech/jts/io/GeoJSONReader.js" {
  export default class GeoJSONReader {
    read(json: unknown): unknown;
  }
}
declare module "jsts/org/locationtech/jts/operation/union/UnaryUnionOp.js" {
  const UnaryUnionOp: { union(geometry: unknown): { getArea(): number } };
  export default UnaryUnionOp;
}
declare module "jsts/org/locationtech/jts/operation/buffer/BufferOp.js" {
  const BufferOp: { bufferOp(geometry: unknown, distance: number, quadrantSegments: number): { getArea(): number } };
  export default BufferOp;
}
declare module "fontkit" {
  interface Glyph {
    id: number;
  }
  interface Run {
    glyphs: Glyph[];
    positions: { xAdvance: number; yAdvance: number; xOffset: number; yOffset: number }[];
    advanceWidth: number;
  }
  export function create(bytes: Uint8Array): { unitsPerEm: number; capHeight: number; layout(text: string): Run };
}
