/**
 * SVG files as we read them, and as the browser draws them: random ones, by pixels.
 */
import { expect, test } from "@playwright/test";
import { readSvg } from "../core/formats/svg-in";
import { randomSvg } from "../core/tests/randomSvg";
import { freshSeed } from "../core/tests/seed";

const COUNT = 60;
/** Pixels of a quarter of a millimetre that may differ away from the edges: hairs that are thinner than one. */
const FEW = 3;

/** What was read, as plain paths in millimetres. */
function drawnAgain(svg: string): string {
  const { shapes, widthMm, heightMm } = readSvg(svg);
  const paths = shapes
    .filter(({ fill }) => fill !== null)
    .map(({ subpaths, fillRule }) => {
      const data = subpaths.map(({ ring }) => `M${Array.from(ring, (mm) => mm.toFixed(4)).join(" ")}z`);
      return `<path fill-rule="${fillRule}" d="${data.join("")}"/>`;
    });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}">${paths.join("")}</svg>`;
}

test("random SVG files are read as the browser draws them", async ({ page }) => {
  const first = freshSeed("random SVG files");
  const wrong: string[] = [];
  let covered = 0;
  for (let seed = first; seed < first + COUNT; seed++) {
    const svg = randomSvg(seed);
    // What is covered with all its neighbours in one picture, and bare with all its neighbours in the other.
    const found = await page.evaluate(
      async ({ pair, width, height }) => {
        const masks: { on: Uint8Array; off: Uint8Array }[] = [];
        for (const text of pair) {
          const picture = new Image();
          picture.src = URL.createObjectURL(new Blob([text], { type: "image/svg+xml" }));
          await picture.decode();
          URL.revokeObjectURL(picture.src);
          const canvas = new OffscreenCanvas(width, height).getContext("2d")!;
          canvas.drawImage(picture, 0, 0, width, height);
          const { data } = canvas.getImageData(0, 0, width, height);
          const [on, off] = [new Uint8Array(width * height), new Uint8Array(width * height)];
          for (let y = 1; y < height - 1; y++) {
            for (let x = 1; x < width - 1; x++) {
              let [least, most] = [255, 0];
              for (let dy = -1; dy <= 1; dy++) {
                for (let dx = -1; dx <= 1; dx++) {
                  const alpha = data[4 * ((y + dy) * width + x + dx) + 3]!;
                  least = Math.min(least, alpha);
                  most = Math.max(most, alpha);
                }
              }
              on[y * width + x] = Number(least > 40);
              off[y * width + x] = Number(most < 20);
            }
          }
          masks.push({ on, off });
        }
        const [theirs, ours] = masks as [(typeof masks)[0], (typeof masks)[0]];
        let [differ, cover] = [0, 0];
        for (let i = 0; i < theirs.on.length; i++) {
          differ += (theirs.on[i]! & ours.off[i]!) | (theirs.off[i]! & ours.on[i]!);
          cover += theirs.on[i]!;
        }
        return { differ, cover };
      },
      { pair: [svg, drawnAgain(svg)], width: 480, height: 360 },
    );
    if (found.differ > FEW) wrong.push(`seed ${seed}: ${found.differ} pixels`);
    covered += found.cover;
  }
  expect(wrong).toEqual([]);
  // The comparison has something to compare.
  expect(covered / COUNT).toBeGreaterThan(5000);
});
