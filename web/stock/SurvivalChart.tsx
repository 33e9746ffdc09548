/**
 * Which necks survived, over their width after the cut, with the curves that were laid through them.
 */
import { type CouponFigures, type Row, SURVIVE, type SurvivalCurve, shareOn } from "@mend-joint/core/coupon";
import { formatLength } from "@mend-joint/core/piece";
import { rowName } from "@mend-joint/core/wording";
import { LineChart, ScatterChart } from "echarts/charts";
import { AriaComponent, GridComponent, LegendScrollComponent, MarkLineComponent, TooltipComponent } from "echarts/components";
import { use } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useCallback } from "react";
import { useBench } from "../state/bench";
import { type Chart, token, useChart } from "../ui/useChart";

use([
  LineChart,
  ScatterChart,
  GridComponent,
  LegendScrollComponent,
  TooltipComponent,
  MarkLineComponent,
  AriaComponent,
  SVGRenderer,
]);

const DASHES = ["solid", [7, 3], [2, 3], [9, 3, 2, 3]] as const;
const STEPS = 60;
const TRUTH = "what the trial cutter went by";
/** Marks of one width lie one above the other by this, as a share of the height. */
const APART = 0.05;

interface Props {
  figures: CouponFigures;
  grain: boolean;
  /** What the trial cutter went by, where it filled the readings in. */
  truth: SurvivalCurve | null;
}

export default function SurvivalChart({ figures, grain, truth }: Props) {
  const units = useBench((state) => state.units);
  const draw = useCallback(
    (chart: Chart) => {
      const { necks, least } = figures;
      const [quiet, rule, ink, falls, holds, focus] = ["quiet", "rule", "ink", "falls", "holds", "focus"].map(token);
      const scale = units === "in" ? 1 / 25.4 : 1;
      const widest = Math.max(1, ...necks.map(({ width }) => width)) * 1.05;
      const widths = Array.from({ length: STEPS + 1 }, (_, i) => (widest * (i + 0.2)) / STEPS);
      const found = least.kind === "found" ? least : null;
      const stacked = new Map<string, number>();
      const marks = (wanted: boolean) =>
        necks
          .filter(({ survived }) => survived === wanted)
          .map(({ row, width }) => {
            const key = `${wanted} ${width.toFixed(2)}`;
            const before = stacked.get(key) ?? 0;
            stacked.set(key, before + 1);
            return { value: [width * scale, wanted ? 1 - before * APART : before * APART], row, width };
          });
      const curve = (row: Row, share: (mm: number) => number, dash: unknown, color: string | undefined) => ({
        name: rowName(row, grain),
        type: "line",
        showSymbol: false,
        silent: true,
        lineStyle: { color, width: 1.6, type: dash },
        itemStyle: { color },
        data: widths.map((mm) => [mm * scale, share(mm)]),
      });
      chart.setOption(
        {
          animation: false,
          aria: {
            enabled: true,
            label: { description: `${necks.length} necks by width: those that held above, those that broke below` },
          },
          grid: { left: 46, right: 16, top: 30, bottom: 38 },
          legend: {
            type: "scroll",
            // Ticks and crosses speak for themselves.
            data: [...(found?.rows ?? []).map(({ row }) => rowName(row, grain)), ...(truth && found ? [TRUTH] : [])],
            top: 0,
            left: 0,
            itemWidth: 22,
            textStyle: { color: quiet, fontSize: 11 },
          },
          tooltip: {
            trigger: "item",
            confine: true,
            formatter: ({ data }: { data: { row?: Row; width?: number } }) =>
              data.row === undefined ? "" : `${rowName(data.row, grain)}, ${formatLength(data.width!, units, 2)}`,
          },
          xAxis: {
            type: "value",
            min: 0,
            max: Number((widest * scale).toPrecision(2)),
            name: `width after the cut, ${units}`,
            nameLocation: "middle",
            nameGap: 24,
            nameTextStyle: { color: quiet, fontSize: 11 },
            axisLabel: { color: quiet, fontSize: 11 },
            splitLine: { show: false },
          },
          yAxis: {
            type: "value",
            min: 0,
            max: 1,
            interval: 0.25,
            axisLabel: {
              color: quiet,
              fontSize: 11,
              formatter: (share: number) => `${Math.round(100 * share)} %`,
            },
            splitLine: { lineStyle: { color: rule } },
          },
          series: [
            ...(found?.rows ?? []).map(({ row }, i) => curve(row, (mm) => found!.share(row, mm), DASHES[i], ink)),
            ...(truth && found
              ? [
                  {
                    ...curve(found.rows[0]!.row, (mm) => shareOn(truth, found.rows[0]!.row, mm), [3, 4], focus),
                    name: TRUTH,
                  },
                ]
              : []),
            {
              name: "held",
              type: "scatter",
              symbol: "circle",
              symbolSize: 6,
              itemStyle: { color: holds },
              data: marks(true),
              markLine: {
                silent: true,
                symbol: "none",
                lineStyle: { color: ink, width: 1 },
                label: { color: ink, fontSize: 11, position: "insideEndTop", formatter: "95 %" },
                data: [{ yAxis: SURVIVE }],
              },
            },
            {
              name: "broke",
              type: "scatter",
              symbol: "path://M0,0L10,10M10,0L0,10",
              symbolSize: 6,
              itemStyle: { color: falls, borderColor: falls, borderWidth: 1.5 },
              data: marks(false),
            },
          ],
        },
        { notMerge: true },
      );
    },
    [figures, grain, truth, units],
  );
  const frame = useChart(draw);

  return (
    <figure className="mx-auto w-full max-w-[760px]">
      <figcaption className="text-[13px] text-quiet">Necks that held and that broke, by their width</figcaption>
      <div ref={frame} className="mt-1 h-[200px] w-full min-w-0 overflow-hidden" data-testid="survival-chart" />
    </figure>
  );
}
