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

const PICTURES = /^image\/(png|jpeg|webp|gif|bmp)$/;

export const isPicture = (file: Blob & { name?: string }): boolean =>
  PICTURES.test(file.type) || /\.(png|jpe?g|webp|gif|bmp)$/i.test(file.name ?? "");
