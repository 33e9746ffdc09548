/**
 * Files of other programs as we read them, and as others draw them: random ones, by pixels.
 */
import { execFileSync } from "node:child_process";
import { expect, type Page, test } from "@playwright/test";
import { asSeen } from "../core/drawings";
import { type Drawing, readPdf, readSvg } from "../core/formats";
import { randomSvg } from "../core/tests/randomSvg";
import { freshSeed } from "../core/tests/seed";

/** Pixels of a quarter of a millimetre that may differ away from the edges: hairs that are thinner than one. */
const FEW = 3;
const WIDTH = 480;

const asPicture = (svg: string) => `data:image/svg+xml,${encodeURIComponent(svg)}`;

/** What was read and is filled, as plain paths in millimetres. */
function drawnAgain({ shapes, widthMm, heightMm }: Drawing): string {
  const paths = shapes
    .filter(({ fill }) => fill !== null)
    .map(({ subpaths, fillRule }) => {
      const data = subpaths.map(({ ring }) => `M${Array.from(ring, (mm) => mm.toFixed(4)).join(" ")}z`);
      return `<path fill-rule="${fillRule}" d="${data.join("")}"/>`;
    });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}">${paths.join("")}</svg>`;
}

/** Pixels that are dark with all their neighbours in one picture, and white with all their neighbours in the other; and dark ones. */
const compare = (page: Page, theirs: string, drawing: Drawing) =>
  page.evaluate(
    async ({ pictures, width, height }) => {
      const masks: { on: Uint8Array; off: Uint8Array }[] = [];
      for (const source of pictures) {
        const picture = new Image();
        picture.src = source;
        await picture.decode();
        const canvas = new OffscreenCanvas(width, height).getContext("2d")!;
        canvas.fillStyle = "white";
        canvas.fillRect(0, 0, width, height);
        canvas.drawImage(picture, 0, 0, width, height);
        const { data } = canvas.getImageData(0, 0, width, height);
        const [on, off] = [new Uint8Array(width * height), new Uint8Array(width * height)];
        for (let y = 1; y < height - 1; y++) {
          for (let x = 1; x < width - 1; x++) {
            let [least, most] = [255, 0];
            for (let dy = -1; dy <= 1; dy++) {
              for (let dx = -1; dx <= 1; dx++) {
                const at = 4 * ((y + dy) * width + x + dx);
                const dark = 255 - Math.min(data[at]!, data[at + 1]!, data[at + 2]!);
                least = Math.min(least, dark);
                most = Math.max(most, dark);
              }
            }
            on[y * width + x] = Number(least > 40);
            off[y * width + x] = Number(most < 20);
          }
        }
        masks.push({ on, off });
      }
      const [one, other] = masks as [(typeof masks)[0], (typeof masks)[0]];
      let [differ, cover] = [0, 0];
      for (let i = 0; i < one.on.length; i++) {
        differ += (one.on[i]! & other.off[i]!) | (one.off[i]! & other.on[i]!);
        cover += one.on[i]!;
      }
      return { differ, cover };
    },
    {
      pictures: [theirs, asPicture(drawnAgain(drawing))],
      width: WIDTH,
      height: Math.round((WIDTH * drawing.heightMm!) / drawing.widthMm!),
    },
  );

/** @param look one random file, as another program draws it and as we read it */
async function compareAll(page: Page, count: number, look: (svg: string) => Promise<{ theirs: string; drawing: Drawing }>) {
  const first = freshSeed("random files of other programs");
  const wrong: string[] = [];
  let covered = 0;
  for (let seed = first; seed < first + count; seed++) {
    const { theirs, drawing } = await look(randomSvg(seed));
    const { differ, cover } = await compare(page, theirs, drawing);
    if (differ > FEW) wrong.push(`seed ${seed}: ${differ} pixels`);
    covered += cover;
  }
  expect(wrong).toEqual([]);
  // The comparison has something to compare.
  expect(covered / count).toBeGreaterThan(4000);
}

test("random SVG files are read as Chromium draws them", async ({ page }) => {
  await compareAll(page, 60, async (svg) => ({ theirs: asPicture(svg), drawing: readSvg(svg) }));
});

test("random PDF files that Chromium wrote are read as poppler draws them", async ({ page, context }) => {
  const printer = await context.newPage();
  await printer.emulateMedia({ media: "screen" });
  await compareAll(page, 25, async (svg) => {
    const forScreen = svg.replace(/@media print\{.*?\}\}/, "");
    await printer.setContent(`<style>@page{margin:0}body{margin:0}svg{display:block}</style>${forScreen}`);
    const pdf = await printer.pdf({ width: "120mm", height: "90mm", printBackground: true, pageRanges: "1" });
    const options = ["-png", "-r", "110", "-singlefile", "-", "-"];
    const png = execFileSync("pdftocairo", options, { input: pdf, maxBuffer: 1e8 });
    return { theirs: `data:image/png;base64,${png.toString("base64")}`, drawing: asSeen(await readPdf(pdf)) };
  });
});
