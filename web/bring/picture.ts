/**
 * Pictures as the browser decodes them.
 */
import { checkPictureSize, type Picture, PictureError } from "@mend-joint/core/trace";

/** @throws PictureError for what is no picture, or too large */
export async function pictureOf(file: Blob): Promise<Picture> {
  const bitmap = await createImageBitmap(file).catch(() => {
    throw new PictureError("This picture cannot be read: it is damaged, or of a kind that is not known. Save it as PNG or JPEG");
  });
  try {
    const { width, height } = bitmap;
    checkPictureSize({ width, height });
    const context = new OffscreenCanvas(width, height).getContext("2d", { willReadFrequently: true });
    if (!context) throw new PictureError("There is not enough memory for the picture: make it smaller first");
    context.drawImage(bitmap, 0, 0);
    return { width, height, data: context.getImageData(0, 0, width, height).data };
  } finally {
    bitmap.close();
  }
}

/** A picture that says so many pixels to the inch does not mean it: screens and phones put in what they like. */
const [LEAST_DPI, MOST_DPI] = [100, 2400];

/** Pixels to the inch, where the picture states a resolution that was measured, as scanners do. */
export async function dpiOf(file: Blob): Promise<number | null> {
  const { default: reader } = await import("exifreader");
  let tags: Awaited<ReturnType<typeof reader.load>>;
  try {
    tags = await reader.load(await file.arrayBuffer());
  } catch {
    return null;
  }
  const number = (name: string): number => {
    const value: unknown = tags[name]?.value;
    const [first, second = 1] = Array.isArray(value) ? (Array.isArray(value[0]) ? value[0] : value) : [value];
    return Number(first) / Number(second);
  };
  const perMetre = tags["Pixel Units"]?.value === 1 ? number("Pixels Per Unit X") : Number.NaN;
  const perUnit = number("XResolution");
  // Resolution units: 1 inch and 2 cm in JFIF, 2 inch and 3 cm in Exif.
  const centimetres = /centi|cm/.test(String(tags["Resolution Unit"]?.description ?? tags.ResolutionUnit?.description ?? ""));
  const dpi = Math.round(Number.isNaN(perMetre) ? perUnit * (centimetres ? 2.54 : 1) : perMetre * 0.0254);
  return dpi >= LEAST_DPI && dpi <= MOST_DPI ? dpi : null;
}

/** Pictures are kept with at most so many pixels, so that a tracing can be changed later. */
const KEPT_PIXELS = 1_500_000;

/** How many pixels of a picture, along a side, one of it as it is kept stands for. */
export function keptShare({ width, height }: Pick<Picture, "width" | "height">): number {
  const share = Math.max(1, Math.sqrt((width * height) / KEPT_PIXELS));
  return width / Math.max(1, Math.round(width / share));
}

/** A picture small enough to be kept. */
export async function smallerPicture(file: Blob): Promise<Blob> {
  const bitmap = await createImageBitmap(file);
  try {
    const share = keptShare(bitmap);
    const canvas = new OffscreenCanvas(
      Math.max(1, Math.round(bitmap.width / share)),
      Math.max(1, Math.round(bitmap.height / share)),
    );
    const context = canvas.getContext("2d");
    if (!context) throw new PictureError("There is not enough memory to keep the picture");
    context.imageSmoothingQuality = "high";
    context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
    return await canvas.convertToBlob({ type: "image/webp", quality: 0.92 });
  } finally {
    bitmap.close();
  }
}

const PICTURES = /^image\/(png|jpeg|webp|gif|bmp)$/;

export const isPicture = (file: Blob & { name?: string }): boolean =>
  PICTURES.test(file.type) || /\.(png|jpe?g|webp|gif|bmp)$/i.test(file.name ?? "");
