/**
 * Demo pieces: the regatta stall of Skerrow, an invented harbour village. Each has the trouble real pieces have.
 */
import { type Piece, parsePiece, stockByName } from "@mend-joint/core/piece";

const stock = (id: string) => ({ ...stockByName(id)! });

/** @returns fresh documents, in the order in which they are put in (the last is the newest) */
export function demoPieces(): Piece[] {
  return [
    {
      id: "demo-harbour-office",
      name: "Harbour office nameplate",
      purpose: "nameplate",
      stock: stock("walnut-6"),
      parts: [
        { kind: "word", id: "w1", text: "HARBOUR", font: "alfa-slab-one", size: { by: "width", mm: 152.4 }, tracking: 1.2 },
        { kind: "bar", id: "bar", height: 12.7, overlap: 3, overhang: 4, corner: 2 },
      ],
    },
    {
      id: "demo-sea-kale",
      name: "Sea-kale stake",
      purpose: "stake",
      stock: stock("acrylic-teal-3"),
      parts: [
        {
          kind: "word",
          id: "w1",
          text: "late kale",
          font: "dancing-script-bold",
          size: { by: "cap-height", mm: 22.2 },
          tracking: -0.2,
        },
        { kind: "bar", id: "bar", height: 4, overlap: 0.8, overhang: 0, corner: 2 },
        { kind: "stick", id: "stick", width: 5, length: 76, tip: "pointed", bite: 2.5 },
      ],
    },
    {
      id: "demo-boat-naming",
      name: "Boat-naming topper",
      purpose: "topper",
      stock: stock("birch-3"),
      parts: [
        { kind: "word", id: "w1", text: "Kittiwake", font: "pacifico", size: { by: "width", mm: 165 } },
        { kind: "stick", id: "stick", width: 6.35, length: 90, tip: "round", bite: 6, dx: 4 },
      ],
    },
  ].map(parsePiece);
}
