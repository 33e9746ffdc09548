/** Hands a file to the browser's own way of saving. */
export function download(name: string, type: string, content: string | Uint8Array | Blob): void {
  const url = URL.createObjectURL(content instanceof Blob ? content : new Blob([content as BlobPart], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/** A drawing as PNG, its ground transparent. */
export async function rasterise(svg: Uint8Array): Promise<Blob> {
  const url = URL.createObjectURL(new Blob([svg as BlobPart], { type: "image/svg+xml" }));
  try {
    const picture = new Image();
    picture.src = url;
    await picture.decode();
    const canvas = document.createElement("canvas");
    [canvas.width, canvas.height] = [picture.naturalWidth, picture.naturalHeight];
    canvas.getContext("2d")!.drawImage(picture, 0, 0);
    return await new Promise((resolve, reject) =>
      canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error("The browser could not draw the picture."))), "image/png"),
    );
  } finally {
    URL.revokeObjectURL(url);
  }
}
