/**
 * A file that is brought in: read, traced where it is a picture, read again for other choices.
 */
import type { BringInOptions } from "@mend-joint/core";
import type { Point } from "@mend-joint/core/geometry";
import type { Picture } from "@mend-joint/core/trace";
import { useEffect, useRef, useState } from "react";
import type { Found, TraceWish } from "../workers/bringing";
import { openDrawing, openPicture, outlinesWith, previewTrace, stopBringing, traceAgain } from "../workers/examiner";
import { dpiOf, isPicture, pictureOf } from "./picture";

export interface TraceChoices {
  /** `null`: midway between shape and background. */
  threshold: number | null;
  /** Smallest speck and hole that is kept, mm across where the picture has 96 pixels to the inch. */
  speck: number;
  hole: number;
  detail: number;
  /** Degrees, counter-clockwise. */
  turn: number;
}

export const USUAL: TraceChoices = { threshold: null, speck: 0.6, hole: 0.6, detail: 1, turn: 0 };

export type Reading =
  | { now: "reading" }
  | { now: "refused"; why: string; openLines: boolean }
  | { now: "found"; found: Found; picture: Opened | null };

export interface Opened {
  picture: Picture;
  url: string;
  /** mm for a pixel. */
  pixel: number;
  /** Pixels to the inch, where the picture says so. */
  dpi: number | null;
}

/** mm for a pixel of a picture that does not say: 96 to the inch, as CSS has it. */
export const PIXEL = 25.4 / 96;

/** A slider that is still for so long (ms) has come to rest. */
const REST = 150;

function wishOf({ threshold, speck, hole, detail, turn }: TraceChoices, pixel: number): TraceWish {
  const area = (mm: number) => (Math.PI / 4) * (mm / pixel) ** 2;
  return {
    scale: pixel,
    turn,
    threshold: threshold ?? undefined,
    speck: area(speck),
    hole: area(hole),
    detail,
  };
}

/**
 * @param lines how lines of a drawing are taken
 * @param pixel mm for a pixel of a picture; left out, as the picture has it
 */
export function useFound(file: File, lines: BringInOptions, choices: TraceChoices, background: Point | null, pixel?: number) {
  const [reading, setReading] = useState<Reading>({ now: "reading" });
  const [busy, setBusy] = useState(false);
  const { lineWidth, broad } = lines;
  const picture = useRef<Opened | null>(null);
  const isTraced = isPicture(file);
  /** Counts questions: only the answer to the newest is shown. */
  const newest = useRef(0);

  // A file is read once; what its other choices change is asked of the one that was read.
  const opened = useRef<File | null>(null);
  const spot = useRef<Point | null>(null);

  useEffect(() => {
    const own = ++newest.current;
    const isNewest = () => own === newest.current;
    const show = (found: Found) => isNewest() && setReading({ now: "found", found, picture: picture.current });
    const read = async () => {
      if (!isTraced) {
        const wanted = { lineWidth, broad };
        if (opened.current === file) return show(await outlinesWith(wanted));
        const found = await openDrawing(new Uint8Array(await file.arrayBuffer()), wanted);
        opened.current = file;
        return show(found);
      }
      if (opened.current !== file || spot.current !== background) {
        const dpi = picture.current || pixel ? null : await dpiOf(file);
        picture.current ??= {
          picture: await pictureOf(file),
          url: URL.createObjectURL(file),
          pixel: pixel ?? (dpi === null ? PIXEL : 25.4 / dpi),
          dpi,
        };
        await openPicture(picture.current.picture, background ?? undefined);
        opened.current = file;
        spot.current = background;
      }
      // While a slider is moving, the pixels' own outline; once it rests, curves.
      if (!isNewest()) return;
      const wish = wishOf(choices, picture.current!.pixel);
      show(await previewTrace(wish));
      await new Promise((resolve) => setTimeout(resolve, REST));
      if (isNewest()) show(await traceAgain(wish));
    };
    setBusy(true);
    read()
      .catch((error: Error) => {
        // What was read may be lost with its worker: the next choice reads the file again.
        opened.current = null;
        if (isNewest()) setReading({ now: "refused", why: error.message, openLines: error.name === "OpenLinesError" });
      })
      .finally(() => {
        if (isNewest()) setBusy(false);
      });
  }, [file, isTraced, lineWidth, broad, choices, background, pixel]);

  useEffect(
    () => () => {
      newest.current = -1;
      if (picture.current) URL.revokeObjectURL(picture.current.url);
      stopBringing();
    },
    [],
  );
  return { reading, busy, isTraced };
}
