import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { deflateSync } from "node:zlib";
import { FontError, loadFont, MAX_FONT_BYTES } from "@mend-joint/core/lettering";
import { describe, expect, it } from "vitest";
import { compress } from "woff2-encoder";
import { fontBytes, readFontFile, readFontSafely } from "./index";

const anton = fontBytes("anton");
const pacifico = fontBytes("pacifico");
const resolve = createRequire(import.meta.url).resolve;
const variable = new Uint8Array(
  readFileSync(resolve("@fontsource-variable/bricolage-grotesque/files/bricolage-grotesque-latin-wght-normal.woff2")),
);

interface Record {
  tag: number;
  data: Uint8Array;
}

function tablesOf(font: Uint8Array): Record[] {
  const view = new DataView(font.buffer, font.byteOffset, font.byteLength);
  return Array.from({ length: view.getUint16(4) }, (_, i) => {
    const at = 12 + 16 * i;
    return {
      tag: view.getUint32(at),
      data: font.subarray(view.getUint32(at + 8), view.getUint32(at + 8) + view.getUint32(at + 12)),
    };
  });
}

/** Packs a font by the W3C's WOFF 1.0 (header of 44 bytes, table directory, compressed tables on four-byte borders). */
function toWoff(font: Uint8Array): Uint8Array {
  const tables = tablesOf(font).map(({ tag, data }) => {
    const packed = new Uint8Array(deflateSync(data));
    return { tag, length: data.length, packed: packed.length < data.length ? packed : data };
  });
  let offset = 44 + 20 * tables.length;
  const places = tables.map(({ packed }) => {
    const here = offset;
    offset += (packed.length + 3) & ~3;
    return here;
  });
  const file = new Uint8Array(offset);
  const view = new DataView(file.buffer);
  view.setUint32(0, 0x774f4646);
  view.setUint32(4, 0x00010000);
  view.setUint32(8, offset);
  view.setUint16(12, tables.length);
  view.setUint32(16, font.length);
  tables.forEach(({ tag, length, packed }, i) => {
    [tag, places[i]!, packed.length, length].forEach((value, k) => {
      view.setUint32(44 + 20 * i + 4 * k, value);
    });
    file.set(packed, places[i]!);
  });
  return file;
}

/** A collection of fonts that share nothing. */
function toCollection(...fonts: Uint8Array[]): Uint8Array {
  const head = 12 + 4 * fonts.length;
  const file = new Uint8Array(head + fonts.reduce((sum, font) => sum + font.length + 4, 0));
  const view = new DataView(file.buffer);
  view.setUint32(0, 0x74746366);
  view.setUint32(4, 0x00010000);
  view.setUint32(8, fonts.length);
  let at = head;
  fonts.forEach((font, i) => {
    view.setUint32(12 + 4 * i, at);
    file.set(font, at);
    // Offsets in a collection are counted from its own start.
    const count = view.getUint16(at + 4);
    for (let t = 0; t < count; t++) {
      const place = at + 12 + 16 * t + 8;
      view.setUint32(place, view.getUint32(place) + at);
    }
    at += (font.length + 3) & ~3;
  });
  return file;
}

/** A font in which one glyph has been replaced by a zigzag of so many points (OpenType specification, "glyf", "loca", "head"). */
function withZigzag(font: Uint8Array, glyph: number, points: number): Uint8Array {
  const tables = new Map(tablesOf(font).map(({ tag, data }) => [tag, data.slice()]));
  const table = (name: string) => tables.get([...name].reduce((tag, c) => tag * 256 + c.charCodeAt(0), 0))!;
  const view = (data: Uint8Array) => new DataView(data.buffer, data.byteOffset, data.byteLength);
  const [head, loca, glyf] = [table("head"), table("loca"), table("glyf")];
  const long = view(head).getInt16(50) === 1;
  const count = loca.length / (long ? 4 : 2);
  const offsets = Array.from({ length: count }, (_, i) => (long ? view(loca).getUint32(4 * i) : 2 * view(loca).getUint16(2 * i)));

  const zigzag = new Uint8Array((14 + 5 * points + 3) & ~3);
  const out = view(zigzag);
  out.setInt16(0, 1);
  out.setUint16(10, points - 1);
  zigzag.fill(1, 14, 14 + points);
  for (let i = 0; i < points; i++) {
    out.setInt16(14 + points + 2 * i, i % 2 === 0 ? 400 : -399);
    out.setInt16(14 + 3 * points + 2 * i, i % 2 === 0 ? 5 : -4);
  }
  const [from, to] = [offsets[glyph]!, offsets[glyph + 1]!];
  const more = zigzag.length - (to - from);
  const newLoca = new Uint8Array(4 * count);
  offsets.forEach((offset, i) => {
    view(newLoca).setUint32(4 * i, i > glyph ? offset + more : offset);
  });
  view(head).setInt16(50, 1);
  const changed = new Map([
    [loca, newLoca],
    [glyf, Uint8Array.from([...glyf.subarray(0, from), ...zigzag, ...glyf.subarray(to)])],
  ]);
  const all = [...tables].map(([tag, data]) => ({ tag, data: changed.get(data) ?? data }));
  const start = 12 + 16 * all.length;
  const file = new Uint8Array(all.reduce((sum, { data }) => sum + ((data.length + 3) & ~3), start));
  view(file).setUint32(0, 0x00010000);
  view(file).setUint16(4, all.length);
  let at = start;
  all.forEach(({ tag, data }, i) => {
    [tag, 0, at, data.length].forEach((value, k) => {
      view(file).setUint32(12 + 16 * i + 4 * k, value);
    });
    file.set(data, at);
    at += (data.length + 3) & ~3;
  });
  return file;
}

const outline = (bytes: Uint8Array, text = "Kate") => {
  const font = loadFont("f", "f", bytes);
  const { glyphs, advance } = font.shape(text);
  return {
    advance,
    islands: font.outline(glyphs, { sx: 0.02, sy: 0.02 }).islands.map((region) => region.map((ring) => [...ring])),
  };
};

describe("font files of a maker's own", () => {
  it("TTF, WOFF and WOFF2 of one font draw the same", async () => {
    const expected = outline(anton);
    for (const [name, file] of [
      ["anton.ttf", anton],
      ["anton.woff", toWoff(anton)],
      ["anton.woff2", await compress(anton)],
    ] as const) {
      const fonts = await readFontFile(name, file);
      expect(fonts, name).toHaveLength(1);
      expect(fonts[0]!.name).toBe("Anton Regular");
      expect(outline(fonts[0]!.bytes)).toEqual(expected);
    }
  });

  it("every face of a collection becomes a font; the same face has the same id everywhere", async () => {
    const fonts = await readFontFile("both.ttc", toCollection(anton, pacifico));
    expect(fonts.map(({ name }) => name)).toEqual(["Anton Regular", "Pacifico Regular"]);
    expect(outline(fonts[1]!.bytes)).toEqual(outline(pacifico));
    const again = await readFontFile("again.ttc", toCollection(pacifico, anton));
    expect(again.map(({ id }) => id).sort()).toEqual(fonts.map(({ id }) => id).sort());
  });

  it("a variable font has axes, and its strokes change along them", async () => {
    const [font] = await readFontFile("variable.woff2", variable);
    const loaded = loadFont("v", "v", font!.bytes);
    const weight = loaded.axes.find(({ tag }) => tag === "wght")!;
    expect([weight.least, weight.most]).toEqual([200, 800]);
    const width = (at: number) => loaded.vary({ wght: at }).shape("Hamburg").advance;
    expect(width(800)).toBeGreaterThan(width(200));
    // Beyond its ends an axis stays at its end.
    expect(width(5000)).toBe(width(800));
  });

  it("what is no font, cut off, or too large is refused with a sentence", async () => {
    const text = new TextEncoder().encode("<html>not a font, but a page</html>");
    await expect(readFontFile("page.ttf", text)).rejects.toThrow("page.ttf is not a font file.");
    await expect(readFontFile("empty.ttf", new Uint8Array())).rejects.toThrow(FontError);
    for (const file of [anton, toWoff(anton), await compress(anton), toCollection(anton, pacifico)]) {
      for (const share of [0.02, 0.5])
        await expect(readFontFile("cut.ttf", file.slice(0, file.length * share))).rejects.toThrow(FontError);
    }
    await expect(readFontFile("huge.ttf", new Uint8Array(MAX_FONT_BYTES + 1))).rejects.toThrow("larger than 20 MB");
  });

  it("what claims to unpack to more than is allowed is not unpacked", async () => {
    const bomb = toWoff(anton);
    new DataView(bomb.buffer).setUint32(44 + 12, 0x7fffffff);
    await expect(readFontFile("bomb.woff", bomb)).rejects.toThrow("when unpacked");
    const second = (await compress(anton)).slice();
    new DataView(second.buffer).setUint32(16, 0x7fffffff);
    await expect(readFontFile("bomb.woff2", second)).rejects.toThrow("when unpacked");
    const many = toCollection(anton);
    new DataView(many.buffer).setUint32(8, 0xffffffff);
    await expect(readFontFile("many.ttc", many)).rejects.toThrow(FontError);
  });

  it("a letter of thirty thousand points is refused, one of some thousand is taken", async () => {
    const [letter] = loadFont("f", "f", anton).shape("§").glyphs;
    expect(letter!.id).toBeGreaterThan(0);
    await expect(readFontFile("fur.ttf", withZigzag(anton, letter!.id, 30_000))).rejects.toThrow("more than 10,000 points");
    expect(await readFontFile("rough.ttf", withZigzag(anton, letter!.id, 4000))).toHaveLength(1);
  });

  it("noise in every table ends in a font or a refusal, never in a crash", async () => {
    let seed = 7;
    const random = () => {
      seed = (seed * 1103515245 + 12345) % 2147483648;
      return seed / 2147483648;
    };
    for (let round = 0; round < 12; round++) {
      const broken = anton.slice();
      for (let k = 0; k < 400; k++) broken[Math.floor(random() * broken.length)] = Math.floor(random() * 256);
      const result = await readFontFile("noise.ttf", broken).catch((error: unknown) => error);
      expect(Array.isArray(result) || result instanceof FontError).toBe(true);
    }
  });

  it("is read in a process of its own, which answers like the reader itself", async () => {
    const [font] = await readFontSafely("anton.ttf", anton);
    expect(font!.id).toBe((await readFontFile("anton.ttf", anton))[0]!.id);
    await expect(readFontSafely("page.ttf", new TextEncoder().encode("<html></html> and more"))).rejects.toThrow(
      "is not a font file",
    );
  });
});
