/**
 * Demo pieces: the regatta stall of Skerrow, an invented harbour village. Each has the trouble real pieces have.
 */
import { OUTLINES, type Piece, parsePiece, stockByName } from "@mend-joint/core/piece";

export { REGATTA_CREW } from "./crew";

const stock = (id: string) => ({ ...stockByName(id)! });

/** @throws when there is no demo piece of that id */
export function demoPiece(id: string): Piece {
  const piece = demoPieces().find((each) => each.id === `demo-${id}`);
  if (!piece) throw new Error(`There is no demo piece "${id}"`);
  return piece;
}

/** @returns fresh documents, in the order in which they are put in (the last is the newest) */
export function demoPieces(): Piece[] {
  return [
    {
      id: "demo-quay-plate",
      name: "Quay plate, cut through",
      purpose: "sign",
      stock: stock("birch-3"),
      parts: [
        { kind: "shape", id: "shape", form: "arch", corner: 4, size: { by: "fit", margin: 16 } },
        {
          kind: "word",
          id: "w1",
          text: "QUAY 4",
          font: "saira-stencil-one",
          size: { by: "width", mm: 156 },
          tracking: 2,
          meets: "carve",
        },
      ],
    },
    {
      id: "demo-bay-sign",
      name: "Skerrow’s bay",
      purpose: "sign",
      stock: stock("birch-3"),
      parts: [
        // The islet outside the bay hangs on nothing.
        {
          kind: "drawing",
          id: "drawing",
          name: "bay",
          outline: `${OUTLINES.bay}M74 40A5 5 0 1 1 64 40A5 5 0 1 1 74 40Z`,
          height: 92,
          at: { x: 0, y: 0 },
          holder: true,
        },
        {
          kind: "word",
          id: "w1",
          text: "Skerrow",
          font: "pacifico",
          size: { by: "width", mm: 96 },
          at: { x: -4, y: 6 },
          meets: "engrave",
        },
      ],
    },
    {
      id: "demo-slip-oak",
      name: "Oak at the slip",
      purpose: "sign",
      stock: stock("birch-3"),
      parts: [
        {
          kind: "shape",
          id: "shape",
          form: "plate",
          corner: 6,
          frame: 5,
          size: { by: "fit", margin: 3.6 },
          meets: "set-in",
          lap: 2,
        },
        { kind: "drawing", id: "drawing", name: "oak", outline: OUTLINES.oak, height: 150, at: { x: 0, y: 12 } },
        {
          kind: "word",
          id: "w1",
          text: "FFION",
          font: "archivo-black",
          size: { by: "both", mm: 120, height: 26 },
          tracking: 4.5,
          dots: "bite",
        },
      ],
    },
    {
      id: "demo-capstan",
      name: "Capstan wheel",
      purpose: "sign",
      stock: stock("mdf-3"),
      parts: [
        {
          kind: "drawing",
          id: "drawing",
          name: "capstan wheel",
          outline: OUTLINES.capstan,
          height: 124,
          at: { x: 0, y: 0 },
          holder: true,
        },
        {
          kind: "word",
          id: "w1",
          text: "HEAVE AWAY",
          font: "anton",
          size: { by: "cap-height", mm: 15 },
          dots: "bite",
          separator: "star",
          path: { kind: "arc", radius: 40, side: "inside", distance: -2.2, around: true },
        },
      ],
    },
    {
      id: "demo-ferry-key",
      name: "Key ring for the ferry",
      purpose: "key ring",
      stock: stock("acrylic-teal-3"),
      parts: [
        { kind: "backing", id: "backing", distance: 5.5 },
        {
          kind: "word",
          id: "w1",
          text: "Wilhelmina",
          font: "baloo-2-extra-bold",
          size: { by: "width", mm: 62 },
          meets: "engrave",
        },
        { kind: "ornament", id: "ornament", name: "disc", height: 22, at: { x: 41, y: 5 } },
        { kind: "ornament", id: "ornament2", name: "star", height: 10, at: { x: 42, y: 5 }, meets: "carve" },
        { kind: "loop", id: "loop", outer: 12, hole: 5.5, angle: 180, bite: 3 },
      ],
    },
    {
      id: "demo-harbour-gate",
      name: "Harbour gate sign",
      purpose: "sign",
      stock: stock("birch-3"),
      parts: [
        { kind: "shape", id: "shape", form: "oval", frame: 5, opening: "behind", size: { by: "fit", margin: 28 } },
        { kind: "word", id: "w1", text: "Isolde", font: "lobster", size: { by: "width", mm: 150 }, join: 2.6, dots: "bite" },
      ],
    },
    {
      id: "demo-tide-spiral",
      name: "Tide spiral",
      purpose: "sign",
      stock: stock("birch-3"),
      parts: [
        {
          kind: "word",
          id: "w1",
          text: "tide comes in tide goes out",
          font: "fredoka-bold",
          size: { by: "cap-height", mm: 15 },
          dots: "tie",
          overlap: 0.6,
          path: { kind: "spiral", radius: 26, pitch: 27, angle: 90, distance: -1.8, line: 4 },
          align: "left",
          separator: "wave",
        },
      ],
    },
    {
      id: "demo-slipway",
      name: "Slipway sign",
      purpose: "sign",
      stock: stock("mdf-3"),
      parts: [
        {
          kind: "word",
          id: "w1",
          text: "Slipway",
          font: "lobster",
          size: { by: "cap-height", mm: 26 },
          dots: "bite",
          path: {
            kind: "curve",
            points: [
              { x: -70, y: -8 },
              { x: -25, y: 12 },
              { x: 25, y: -12 },
              { x: 70, y: 8 },
            ],
            distance: -1.8,
            line: 5,
          },
        },
      ],
    },
    {
      id: "demo-bell-rim",
      name: "Rim lettering for the bell",
      purpose: "sign",
      stock: stock("acrylic-red-3"),
      parts: [
        {
          kind: "word",
          id: "w1",
          text: "FFION OF SKERROW",
          font: "anton",
          size: { by: "cap-height", mm: 14 },
          path: { kind: "arc", radius: 68, side: "inside", distance: -2.2, around: true, line: 6 },
          separator: "star",
          roundOuter: 0.3,
        },
      ],
    },
    {
      id: "demo-oyster-bar",
      name: "Oyster bar ring sign",
      purpose: "sign",
      stock: stock("birch-3"),
      parts: [
        {
          kind: "word",
          id: "w1",
          text: "OYSTER BAR",
          font: "bevan",
          size: { by: "cap-height", mm: 18 },
          tracking: 1.5,
          path: { kind: "arc", radius: 60, distance: -1.8, line: 6 },
        },
        {
          kind: "word",
          id: "w2",
          text: "★ AT THE QUAY ★",
          font: "bevan",
          size: { by: "cap-height", mm: 12 },
          tracking: 1.5,
          path: { kind: "arc", radius: 60, angle: 270, reading: "counter-clockwise", side: "outside", distance: 1.2 },
        },
      ],
    },
    {
      id: "demo-heron-earrings",
      name: "Heron earrings",
      purpose: "earring",
      stock: stock("acrylic-teal-3"),
      parts: [
        {
          kind: "word",
          id: "w1",
          text: "○ZOË",
          font: "titan-one",
          size: { by: "within", mm: 50.8, height: 50.8 },
          path: { kind: "stacked", joint: 2.6 },
          dots: "tie",
        },
      ],
    },
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
