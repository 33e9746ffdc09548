/**
 * Pictures from their files: PNG, JPEG, WebP, GIF and TIFF by sharp, BMP by bmp-ts.
 */
import { checkPictureSize, type Picture, PictureError } from "@mend-joint/core/trace";
import { decode } from "bmp-ts";
import sharp from "sharp";

const READ: ReadonlySet<string> = new Set(["png", "jpeg", "webp", "gif", "tiff"]);

export interface ReadPicture {
  picture: Picture;
  notes: string[];
}

/** The first frame of a picture, upright. @throws PictureError */
export async function readPicture(bytes: Uint8Array): Promise<ReadPicture> {
  if (bytes.length === 0) throw new PictureError("The file is empty");
  if (bytes[0] === 0x42 && bytes[1] === 0x4d) return { picture: readBmp(bytes), notes: [] };
  const { format, width, height, pages = 1 } = await metadataOf(bytes);
  if (!format || !READ.has(format)) {
    const drawn = format === "svg" || format === "pdf";
    throw new PictureError(
      drawn
        ? "This is a drawing, not a picture: it has outlines already and needs no tracing"
        : "This is no picture that can be read: save it as PNG, JPEG, WebP, GIF, TIFF or BMP",
    );
  }
  checkPictureSize({ width, height });
  const { data, info } = await decoded(bytes);
  const notes = pages > 1 ? [`The file has ${pages} pictures; the first one is traced`] : [];
  return { picture: { width: info.width, height: info.height, data }, notes };
}

async function metadataOf(bytes: Uint8Array) {
  try {
    return await sharp(bytes, { limitInputPixels: false }).metadata();
  } catch {
    throw new PictureError("This is no picture that can be read: save it as PNG, JPEG, WebP, GIF, TIFF or BMP");
  }
}

async function decoded(bytes: Uint8Array) {
  try {
    const image = sharp(bytes, { failOn: "truncated" }).autoOrient().toColourspace("srgb").ensureAlpha();
    return await image.raw({ depth: "uchar" }).toBuffer({ resolveWithObject: true });
  } catch (error) {
    throw new PictureError(`The picture is damaged and cannot be read to its end (${(error as Error).message.split("\n")[0]})`);
  }
}

/** Bytes that tell the size of a BMP: width and height as 32-bit numbers, the height below zero where rows run downwards. */
const SIZE_AT = 18;

function readBmp(bytes: Uint8Array): Picture {
  if (bytes.length < 54) throw new PictureError("The picture is damaged: it ends within its own header");
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  checkPictureSize({ width: Math.abs(view.getInt32(SIZE_AT, true)), height: Math.abs(view.getInt32(SIZE_AT + 4, true)) });
  try {
    const { data, width, height } = decode(Buffer.from(bytes), { toRGBA: true });
    // Plain bitmaps leave the opacity empty.
    const opaque = !data.some((value, i) => i % 4 === 3 && value > 0);
    if (opaque) for (let i = 3; i < data.length; i += 4) data[i] = 255;
    return { width, height: Math.abs(height), data };
  } catch (error) {
    throw new PictureError(`The picture is damaged and cannot be read to its end (${(error as Error).message})`);
  }
}
