import { init } from "echarts/core";
import { type RefObject, useEffect, useRef } from "react";

export type Chart = ReturnType<typeof init>;

/**
 * A chart as large as its frame. The parts that it is made of are put in by whoever draws with it.
 *
 * @param draw the chart is drawn anew when it is another function
 * @returns for the element that the chart fills
 */
export function useChart(draw: (chart: Chart) => void): RefObject<HTMLDivElement | null> {
  const frame = useRef<HTMLDivElement>(null);
  const chart = useRef<Chart | null>(null);
  useEffect(() => {
    const made = init(frame.current!, undefined, { renderer: "svg" });
    chart.current = made;
    const observer = new ResizeObserver(() => made.resize());
    observer.observe(frame.current!);
    return () => {
      observer.disconnect();
      made.dispose();
    };
  }, []);
  useEffect(() => draw(chart.current!), [draw]);
  return frame;
}

/** A colour of the stylesheet, which a chart cannot read by itself. */
export const token = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--color-${name}`).trim();
