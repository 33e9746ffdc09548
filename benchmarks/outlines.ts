/** Outlines from elsewhere: drawings brought in, examined and dragged over; pictures traced. */

import { chooseOutlines, examine, examineMoving, findOutlines, type Library, withMemory } from "@mend-joint/core";
import { readDrawing } from "@mend-joint/core/formats";
import { addPart, applyMove, type Piece } from "@mend-joint/core/piece";
import { outlinesAt, type Picture, previewAt, readField } from "@mend-joint/core/trace";
import { type Bar, median } from "./clock";
import { oneWord } from "./pieces";

/** A coastline: so many nodes, half of them on curves, around the word. */
function coast(nodes: number): string {
  const at = (i: number) => {
    const angle = (2 * Math.PI * i) / nodes;
    const r =
      90 + 6 * Math.sin(9 * angle) + 2 * Math.sin(41 * angle) + (nodes > 10_000 ? 0.05 : 0.4) * Math.sin((nodes / 20) * angle);
    return `${(r * Math.cos(angle)).toFixed(4)} ${(0.6 * r * Math.sin(angle)).toFixed(4)}`;
  };
  const steps = Array.from({ length: nodes }, (_, i) =>
    i % 2 ? `L${at(i + 1)}` : `C${at(i + 0.3)} ${at(i + 0.6)} ${at(i + 1)}`,
  );
  return `M${at(0)}${steps.join("")}Z`;
}

const svgOf = (nodes: number) =>
  new TextEncoder().encode(
    `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="120mm" viewBox="-100 -60 200 120"><path d="${coast(nodes)}"/></svg>`,
  );

/** Forty discs on a plain ground, 4 million pixels. */
function fourMegapixels(): Picture {
  const [width, height] = [2400, 1700];
  const data = new Uint8ClampedArray(4 * width * height).fill(255);
  for (let k = 0; k < 40; k++) {
    const [cx, cy, r] = [150 + (k % 10) * 230.3, 250 + Math.floor(k / 10) * 380.7, 60 + k];
    for (let y = Math.floor(cy - r - 1); y <= cy + r + 1; y++) {
      for (let x = Math.floor(cx - r - 1); x <= cx + r + 1; x++) {
        const covered = Math.min(1, Math.max(0, r - Math.hypot(x + 0.5 - cx, y + 0.5 - cy) + 0.5));
        for (let c = 0; c < 3; c++) data[4 * (y * width + x) + c] = 255 - 225 * covered;
      }
    }
  }
  return { width, height, data };
}

export async function outlines(fonts: Library, bar: Bar): Promise<void> {
  const library = withMemory(fonts);
  const file = svgOf(50_000);
  const taken = await median(
    async () => {
      const found = findOutlines(await readDrawing(file));
      chooseOutlines(found, [...found.outlines.keys()]);
    },
    3,
    1,
  );
  bar("an SVG of 50,000 nodes brought in", taken / 1000, 3, "s");

  const found = findOutlines(await readDrawing(svgOf(5000)));
  const { outline } = chooseOutlines(found, [0]);
  const drawing = { kind: "drawing", name: "coast", outline, height: 110, at: { x: 0, y: 5 }, holder: true } as const;
  const piece: Piece = addPart({ ...oneWord, parts: oneWord.parts.filter(({ kind }) => kind === "word") }, { ...drawing });
  bar("a word on a drawing of 5,000 nodes", await median(() => void examine(piece, library)), 100, "ms");
  const still = examine(piece, library);
  let step = 0;
  const drag = await median(() => {
    const move = { what: "word", wordId: "a", dx: 0.02 * (++step % 50), dy: 0.01 * (step % 30) } as const;
    examineMoving(applyMove(piece, move), library, still);
  });
  bar("the word dragged over it", drag, 30, "ms");

  const picture = fourMegapixels();
  bar(
    "a picture of 4 megapixels, to its first outline",
    (await median(() => void outlinesAt(readField(picture)), 5, 1)) / 1000,
    1.5,
    "s",
  );
  const field = readField(picture);
  const thresholds = { next: 90 };
  bar("a step of its threshold", await median(() => void previewAt(field, { threshold: thresholds.next++ }), 7, 2), 60, "ms");
}
