import { type Piece, parsePiece, STOCKS } from "@mend-joint/core/piece";

/** The simplest piece that can be kept. */
export const document = (id: string, name: string): Piece =>
  parsePiece({
    id,
    name,
    stock: STOCKS[0],
    parts: [{ kind: "word", id: "w", text: name, font: "pacifico", size: { by: "width", mm: 80 } }],
  });
