/**
 * trace PICTURE: known shapes drawn by librsvg (rsvg-convert, Debian) and by resvg, clean and soiled, come back as they were.
 */
import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { readSvg } from "@mend-joint/core/formats";
import { type Ring, regionArea, ringArea, segmentDistance2 } from "@mend-joint/core/geometry";
import { freshSeed } from "@mend-joint/core/tests/seed";
import { encode } from "bmp-ts";
import sharp, { type Sharp } from "sharp";
import { describe, expect, it } from "vitest";
import { rasterise } from "./exporting";
import { outcomeOf, outcomeOfProcess } from "./tests/outcome";
import { traceFile } from "./tracing";

const folder = mkdtempSync(join(tmpdir(), "mend-joint-trace-"));
const at = (name: string) => join(folder, name);
const run = (...args: string[]) => outcomeOf(traceFile, args);

const [CX, CY, W, H] = [40, 30, 80, 60];
const star = Array.from({ length: 10 }, (_, i) => {
  const [r, angle] = [i % 2 === 0 ? 25 : 11, (Math.PI * i) / 5 + 0.1];
  return `${CX + r * Math.sin(angle)},${CY - r * Math.cos(angle)}`;
}).join(" ");
const SHAPES: Record<string, string> = {
  disc: `<circle cx="${CX}" cy="${CY}" r="21.3"/>`,
  ring: `<path fill-rule="evenodd" d="M60 30A20 20 0 1 1 20 30A20 20 0 1 1 60 30ZM50 30A10 10 0 1 0 30 30A10 10 0 1 0 50 30Z"/>`,
  star: `<polygon points="${star}"/>`,
  heart: `<path d="M40 52C30 42 20 36 20 26C20 19 25 15 31 15C35 15 38 17.5 40 21C42 17.5 45 15 49 15C55 15 60 19 60 26C60 36 50 42 40 52Z"/>`,
};

/** Whole pixels for the page, so that both rasterisers have it at the same scale. */
const page = (shape: string, dpi: number) => {
  const k = Math.round((dpi / 25.4) * 10) / 10;
  const [width, height] = [Math.round(W * k), Math.round(H * k)];
  return {
    scale: W / width,
    svg: `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${W} ${(W * height) / width}"><rect width="100" height="100" fill="#fff"/>${shape}</svg>`,
  };
};

async function picture(name: string, svg: string, by: "librsvg" | "resvg", soiled: number | null): Promise<string> {
  const path = at(`${name}.png`);
  if (by === "librsvg") writeFileSync(path, spawnSync("rsvg-convert", { input: svg, maxBuffer: 1e8 }).stdout);
  else writeFileSync(path, await rasterise(Buffer.from(svg)));
  if (soiled === null) return path;
  const { status } = spawnSync("/usr/bin/python3", [
    join(import.meta.dirname, "tests/soil.py"),
    "soil",
    path,
    at(`${name}.jpg`),
    String(soiled),
  ]);
  expect(status).toBe(0);
  return at(`${name}.jpg`);
}

const ringsOf = (svg: string): Ring[] => readSvg(svg).shapes.flatMap(({ subpaths }) => subpaths.map(({ ring }) => ring));

/**
 * How far places on some outlines lie from others: within what 95 % of their length lies, and the farthest place of all, corners
 * included. Places are evenly far apart along the outlines, however short the chords are: a round tip has many of them.
 */
function deviation(rings: readonly Ring[], others: readonly Ring[], step: number): { most: number; farthest: number } {
  const off: number[] = [];
  let farthest = 0;
  for (const ring of rings) {
    /** From the start of a side to the next place on it, mm. */
    let next = 0;
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
      const length = Math.hypot(bx - ax, by - ay);
      for (; next < length; next += step) {
        off.push(nearest(ax + ((bx - ax) * next) / length, ay + ((by - ay) * next) / length, others));
      }
      next -= length;
      farthest = Math.max(farthest, nearest(ax, ay, others));
    }
  }
  off.sort((a, b) => a - b);
  return { most: off[Math.floor(0.95 * off.length)]!, farthest: Math.max(farthest, off[off.length - 1]!) };
}

function nearest(x: number, y: number, rings: readonly Ring[]): number {
  let least = Infinity;
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      least = Math.min(least, segmentDistance2(x, y, ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!));
    }
  }
  return Math.sqrt(least);
}

const areaOf = (rings: readonly Ring[]) => Math.abs(regionArea([...rings]));
/** Rings of evenodd paths run as they please; the larger ones are the pieces here. */
const woundOf = (rings: readonly Ring[]) => {
  const [first, ...rest] = [...rings].sort((a, b) => Math.abs(ringArea(b)) - Math.abs(ringArea(a)));
  return Math.abs(ringArea(first!)) - areaOf(rest);
};

const seed = freshSeed("cli/trace");
const CASES = Object.keys(SHAPES).flatMap((shape, i) =>
  // The largest pictures take a second each: one shape with corners, one with a hole.
  (shape === "ring" || shape === "star" ? [100, 300, 600] : [100, 300]).flatMap((dpi, k) =>
    // Each by one of the two that draw, in the next run perhaps by the other; the largest by the quicker one.
    [false, true].map((soiled, l) => {
      const by = dpi === 600 || (seed + i + k + l) % 2 === 0 ? ("librsvg" as const) : ("resvg" as const);
      return { shape, dpi, by, soiled, noise: seed };
    }),
  ),
);
/** Three of its tips come back round. */
CASES.push({ shape: "star", dpi: 100, by: "resvg", soiled: true, noise: 845171368 });

describe("known shapes", () => {
  it.each(CASES)("$shape at $dpi dpi by $by, soiled: $soiled, noise $noise", async ({ shape, dpi, by, soiled, noise }) => {
    const { svg, scale } = page(SHAPES[shape]!, dpi);
    const path = await picture(`${shape}-${dpi}-${by}`, svg, by, soiled ? noise : null);
    const { status, stdout, stderr } = await run(path, "--dpi", String(25.4 / scale));
    expect([status, stderr]).toEqual([0, ""]);
    const rings = ringsOf(stdout.toString());
    // The truth in mm, as our reader of SVG has it from the shape alone; the shapes' own formulas where there are any.
    const truth = ringsOf(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${W}mm" height="${H}mm" viewBox="0 0 ${W} ${H}">${SHAPES[shape]}</svg>`,
    );
    expect(rings).toHaveLength(truth.length);
    const area = shape === "disc" ? Math.PI * 21.3 ** 2 : shape === "ring" ? Math.PI * 300 : woundOf(truth);
    expect(Math.abs(woundOf(rings) / area - 1)).toBeLessThan(soiled ? 0.004 : 0.002);
    for (const off of [deviation(rings, truth, 2 * scale), deviation(truth, rings, 2 * scale)]) {
      const [most, tip] = soiled ? [0.3, 3] : [0.15, 1.5];
      expect(off.most / scale).toBeLessThan(most);
      expect(off.farthest / scale).toBeLessThan(tip);
    }
  });

  it("as many pieces and holes, and the same areas, as scikit-image finds", async () => {
    const letters = `<g font-size="30" font-family="DejaVu Sans" fill="#000">${SHAPES.ring}<circle cx="12" cy="12" r="6"/><rect x="64" y="42" width="10" height="12"/></g>`;
    const path = await picture("several", page(letters, 200).svg, "librsvg", null);
    const { stdout } = await run(path, "--dpi", "25.4");
    const theirs = JSON.parse(
      spawnSync("/usr/bin/python3", [join(import.meta.dirname, "tests/soil.py"), "contours", path]).stdout.toString(),
    ) as number[];
    const ours = ringsOf(stdout.toString())
      .map((ring) => Math.abs(ringArea(ring)))
      .sort((a, b) => a - b);
    expect(ours).toHaveLength(theirs.length);
    ours.forEach((area, i) => {
      expect(Math.abs(area / theirs[i]! - 1)).toBeLessThan(0.003);
    });
  });
});

describe("files and figures", () => {
  const plain = page(SHAPES.disc!, 100).svg;
  const file = async (name: string, make: (image: Sharp) => Promise<Buffer> | Buffer) => {
    writeFileSync(at(name), await make(sharp(Buffer.from(plain))));
    return at(name);
  };
  const bitmap = async (image: Sharp) => {
    const { data, info } = await image.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    // The encoder wants opacity, blue, green, red.
    const turned = Buffer.alloc(data.length);
    for (let i = 0; i < data.length; i += 4)
      [turned[i], turned[i + 1], turned[i + 2], turned[i + 3]] = [255, data[i + 2]!, data[i + 1]!, data[i]!];
    return encode({ data: turned, width: info.width, height: info.height, bitPP: 24 }).data;
  };

  const hugeBitmap = (side: number) => {
    const header = Buffer.alloc(64);
    header.write("BM");
    header.writeInt32LE(side, 18);
    header.writeInt32LE(side, 22);
    return header;
  };

  it.each([
    ["PNG", "a.png", (image: Sharp) => image.png().toBuffer()],
    ["JPEG", "a.jpg", (image: Sharp) => image.jpeg().toBuffer()],
    ["WebP", "a.webp", (image: Sharp) => image.webp().toBuffer()],
    ["GIF", "a.gif", (image: Sharp) => image.gif().toBuffer()],
    ["BMP", "a.bmp", bitmap],
  ])("%s, the shape as wide as asked", async (_, name, make) => {
    const { status, stdout } = await run(await file(name, make), "--width", "50");
    expect(status).toBe(0);
    const [ring] = ringsOf(stdout.toString());
    expect(Math.abs(ringArea(ring!)) / (Math.PI * 625)).toBeCloseTo(1, 2);
    expect(stdout.toString()).toMatch(/^<svg [^>]*width="50mm"/);
  });

  it("a hollow one, written to a file, from a terminal", async () => {
    const path = await file("b.png", (image) => image.png().toBuffer());
    const { status, stdout } = outcomeOfProcess("trace", [path, "--width", "50", "--hollow", "4", "--out", at("b.svg")]);
    expect([status, stdout.length]).toEqual([0, 0]);
    expect(woundOf(ringsOf(readFileSync(at("b.svg"), "utf8"))) / (Math.PI * (25 ** 2 - 21 ** 2))).toBeCloseTo(1, 2);
  });

  it("a threshold moves the edge of a soft shape", async () => {
    const path = await file("soft.png", (image) => image.blur(6).png().toBuffer());
    const areas = await Promise.all(
      ["60", "190"].map(async (threshold) =>
        areaOf(ringsOf((await run(path, "--dpi", "100", "--threshold", threshold)).stdout.toString())),
      ),
    );
    expect(areas[1]! / areas[0]!).toBeGreaterThan(1.1);
  });

  it("only the first picture of an animation, and that is said", async () => {
    const frames = await sharp([at("a.png"), await file("c.png", (image) => image.negate().png().toBuffer())], {
      join: { animated: true },
    })
      .gif()
      .toBuffer();
    writeFileSync(at("moving.gif"), frames);
    const { status, stderr } = await run(at("moving.gif"), "--width", "20");
    expect([status, stderr]).toEqual([0, "The file has 2 pictures; the first one is traced\n"]);
  });

  it.each([
    [
      "nothing in it",
      async () =>
        file("empty.png", () =>
          sharp({ create: { width: 90, height: 90, channels: 3, background: "#fff" } })
            .png()
            .toBuffer(),
        ),
      /stands out/,
    ],
    [
      "one pixel",
      async () =>
        file("one.png", () =>
          sharp({ create: { width: 1, height: 1, channels: 3, background: "#fff" } })
            .png()
            .toBuffer(),
        ),
      /1 × 1 pixels/,
    ],
    ["cut short", async () => file("cut.jpg", async (image) => (await image.jpeg().toBuffer()).subarray(0, 900)), /damaged/],
    ["a drawing", async () => file("a.svg", () => Buffer.from(plain)), /is a drawing, not a picture/],
    ["words", async () => file("words.png", () => Buffer.from("a seal on the slip")), /no picture that can be read/],
    ["no file", async () => at("none.png"), /no such file/],
    // The size is told at the beginning: the pixels themselves need not be there.
    ["20,000 × 20,000 pixels", () => file("huge.bmp", () => hugeBitmap(20_000)), /20000 × 20000 pixels/],
  ])("%s ends with a sentence", async (_, path, sentence) => {
    const { status, stdout, stderr } = await run(await path(), "--width", "50");
    expect([status, stdout.length]).toEqual([2, 0]);
    expect(stderr).toMatch(sentence);
    expect(stderr.trim().split("\n")).toHaveLength(1);
  });

  it.each([
    [["--width", "50", "--dpi", "100"], /either/],
    [[], /either/],
    [["--width", "0"], /not a length/],
    [["--dpi", "none"], /not a number from 1/],
    [["--dpi", "100", "--threshold", "300"], /from 0 to 255/],
    [["--width", "50", "--hollow", "40"], /wider than 80 mm/],
  ])("%j is no use", async (args, sentence) => {
    const { status, stderr } = await run(at("a.png"), ...args);
    expect(status).toBe(2);
    expect(stderr).toMatch(sentence);
  });
});
