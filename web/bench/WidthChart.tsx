/**
 * All joints of the piece side by side, narrowest first, against the least width. A press goes to the place.
 */
import type { Examination } from "@mend-joint/core";
import { isNarrower } from "@mend-joint/core/judge";
import { formatLength, formatNumber } from "@mend-joint/core/piece";
import { labelsOf } from "@mend-joint/core/report";
import { placeName } from "@mend-joint/core/wording";
import { BarChart } from "echarts/charts";
import { AriaComponent, GridComponent, MarkLineComponent, TooltipComponent } from "echarts/components";
import { use } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useCallback } from "react";
import { pointAt, showJoint, useBench } from "../state/bench";
import { type Chart, token, useChart } from "../ui/useChart";

use([BarChart, GridComponent, TooltipComponent, MarkLineComponent, AriaComponent, SVGRenderer]);

export default function WidthChart({ examination }: { examination: Examination }) {
  const units = useBench((state) => state.units);
  const draw = useCallback(
    (made: Chart) => {
      const { joints, solids, leastWidth } = examination;
      const labels = labelsOf(examination);
      const [quiet, rule, ink, weak, holds] = ["quiet", "rule", "ink", "weak", "holds"].map(token);
      const scale = units === "in" ? 1 / 25.4 : 1;
      made.setOption(
        {
          animation: false,
          aria: { enabled: true, label: { description: `${joints.length} joints by width, narrowest first` } },
          grid: { left: 30, right: 6, top: 16, bottom: 6 },
          tooltip: {
            trigger: "item",
            confine: true,
            formatter: ({ dataIndex }: { dataIndex: number }) => {
              const { parts, width } = joints[dataIndex]!;
              const name = placeName(
                parts.map((i) => solids[i]!.id),
                labels,
              );
              return `${escapeHtml(name)} ${formatLength(width, units, 2)}`;
            },
          },
          xAxis: { type: "category", data: joints.map((_, j) => j), show: false },
          yAxis: {
            type: "value",
            max: ({ max }: { max: number }) => roundUp(Math.max(max, leastWidth * scale * 1.4)),
            axisLabel: { color: quiet, fontSize: 11 },
            splitLine: { lineStyle: { color: rule } },
            splitNumber: 3,
          },
          series: [
            {
              type: "bar",
              barCategoryGap: "25%",
              barMaxWidth: 14,
              data: joints.map(({ width }) => ({
                value: width * scale,
                itemStyle: { color: isNarrower(width, leastWidth) ? weak : holds, borderRadius: [2, 2, 0, 0] },
              })),
              markLine: {
                silent: true,
                symbol: "none",
                label: { formatter: formatNumber(leastWidth, units, 2), position: "insideStartTop", color: ink, fontSize: 11 },
                lineStyle: { color: ink, type: "solid", width: 1 },
                data: [{ yAxis: leastWidth * scale }],
              },
            },
          ],
        },
        { notMerge: true },
      );
      made.off("click");
      made.off("mouseover");
      made.off("globalout");
      made.on("click", ({ dataIndex }) => showJoint(joints[dataIndex]!));
      made.on("mouseover", ({ dataIndex }) => pointAt([], dataIndex));
      made.on("globalout", () => pointAt([]));
    },
    [examination, units],
  );
  const frame = useChart(draw);

  return (
    <figure>
      <figcaption className="text-[13px] text-quiet">All joints, narrowest first; the line is the least width</figcaption>
      <div ref={frame} className="h-[132px] w-full" data-testid="width-chart" />
    </figure>
  );
}

/** To the next 1, 2 or 5 in the second figure, so that the axis ends on a round number. */
function roundUp(value: number): number {
  const unit = 10 ** (Math.floor(Math.log10(value)) - 1);
  const step = [1, 2, 5, 10].map((each) => each * unit).find((each) => value / each <= 20) ?? unit;
  return Number((Math.ceil(value / step) * step).toPrecision(3));
}

/** Letters of the maker's own stand in the name; the chart writes it as markup. */
function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
}
