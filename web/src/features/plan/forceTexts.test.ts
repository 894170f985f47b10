import { scaleLinear } from "d3-scale";
import { beforeAll, describe, expect, it } from "vitest";
import type { Chart } from "../../api/client";
import { axesTaken } from "../../drawing/texts";
import { drawnByTheCore, overlap } from "../../tests/drawn";
import { forceTexts } from "./forceTexts";

const edge = { top: 34, right: 26, bottom: 40, left: 58 };

function placed(chart: Chart, width: number, height: number) {
  const x = scaleLinear([0, chart.rpm_most], [edge.left, width - edge.right]);
  const y = scaleLinear([0, chart.force_most], [height - edge.bottom, edge.top]);
  const axes = { x, y, edge, width, big: 1, unit: chart.unit, words: "spindle, rpm" };
  const texts = forceTexts(chart, { axes, height, others: chart.curves.slice(2, 3) });
  return { texts, taken: axesTaken(axes), x, y };
}

describe("the words of the force picture", () => {
  let charts: { name: string; chart: Chart }[];
  beforeAll(() => {
    charts = drawnByTheCore().flatMap(({ name, chart }) => (chart ? [{ name, chart }] : []));
  }, 120_000);

  it.each([
    [772, 380],
    [772, 220],
    [816, 300],
    [390, 260],
  ])("stand on nothing else: %d x %d", (width, height) => {
    expect(charts.length).toBeGreaterThan(10);
    for (const { name, chart } of charts) {
      const { texts, taken, x, y } = placed(chart, width, height);
      const boxes = [...texts.map((t) => t.box), ...taken];
      const clash = texts.filter((t, i) => boxes.some((other, j) => j !== i && overlap(t.box, other)));
      expect([name, clash.map((t) => t.text)]).toEqual([name, []]);
      const covered = texts.filter((t) =>
        chart.points.some((p) => overlap(t.box, { x: x(p.rpm) - 4, y: y(p.force) - 4, width: 8, height: 8 })),
      );
      expect([name, covered.map((t) => t.text)]).toEqual([name, []]);
    }
  });

  it("name the cap, what is needed and the cut nearest to the curve whatever else there is", () => {
    for (const { chart } of charts) {
      const kinds = placed(chart, 772, 380).texts.map((t) => t.kind);
      expect(kinds).toContain("cap");
      expect(kinds.filter((k) => k === "strong" || k === "over").length).toBeGreaterThan(1);
    }
  });
});
