import { render, screen } from "@testing-library/react";
import { beforeAll, describe, expect, it, vi } from "vitest";
import type { Chart } from "../../api/client";
import { ForceChart } from "./ForceChart";

const chart: Chart = {
  unit: "kN",
  rpm_most: 4000,
  force_most: 50,
  curves: [
    {
      name: "grip",
      label: "grip",
      points: [
        [0, 46],
        [1000, 40],
        [2350, 17],
        [2900, 0],
      ],
    },
    {
      name: "corner",
      label: "worst credible corner",
      points: [
        [0, 39],
        [1000, 33],
        [2350, 10],
        [2600, 0],
      ],
    },
    {
      name: "other",
      label: "with aluminium jaws",
      points: [
        [0, 46],
        [2000, 36],
        [4000, 5],
      ],
    },
  ],
  demand: 17,
  demand_text: "17.0 kN",
  static_text: "46.0 kN",
  cap: 2350,
  cap_force: 17,
  cap_text: "2 350",
  top: 1800,
  top_text: "1 800",
};

class NoWatcher {
  observe = vi.fn();
  disconnect = vi.fn();
}

function show(more: Partial<Chart> = {}) {
  const { container } = render(<ForceChart chart={{ ...chart, ...more }} />);
  const number = (selector: string, name: string) =>
    Number(container.querySelector(selector)?.getAttribute(name) ?? Number.NaN);
  return { container, number };
}

describe("ForceChart", () => {
  beforeAll(() => {
    // jsdom has no layout: a frame of 772 × 372.
    vi.spyOn(HTMLElement.prototype, "clientWidth", "get").mockReturnValue(772);
    vi.spyOn(HTMLElement.prototype, "clientHeight", "get").mockReturnValue(372);
    vi.stubGlobal("ResizeObserver", NoWatcher);
  });

  it("says in words what it draws", () => {
    show();
    const words = screen.getByRole("img").getAttribute("aria-label");
    expect(words).toContain("Standing still 46.0 kN; the worst cut needs 17.0 kN; the cap is 2 350 rpm");
  });

  it("puts the cap's mark on its line, at the demand", () => {
    const { number } = show();
    expect(number("circle.cap-dot", "cx")).toBeCloseTo(number("line.cap-line", "x1"), 6);
    expect(number("circle.cap-dot", "cy")).toBeCloseTo(number("line.demand", "y1"), 6);
  });

  it("stands the program left of the cap while it is safe, and marks it when it is not", () => {
    const safe = show();
    expect(safe.number("line.top-line", "x1")).toBeLessThan(safe.number("line.cap-line", "x1"));
    expect(safe.container.querySelector("line.top-line")?.hasAttribute("data-over")).toBe(false);
    const over = show({ top: 3100, top_text: "3 100" });
    expect(over.container.querySelector("line.top-line")?.hasAttribute("data-over")).toBe(true);
    expect(over.number("line.top-line", "x1")).toBeGreaterThan(over.number("line.cap-line", "x1"));
    expect(over.container.querySelector("text.over")).toHaveTextContent("program reaches 3 100");
  });

  it("starts the curve at the axis and overlays the other jaws by name", () => {
    const { container, number } = show();
    const start = container
      .querySelector('[data-curve="grip"]')
      ?.getAttribute("d")
      ?.match(/^M([\d.]+)/)?.[1];
    expect(Number(start)).toBeCloseTo(number("line.grid", "x1"), 6);
    expect(screen.getByText("with aluminium jaws")).toBeInTheDocument();
  });

  it("draws without other jaws", () => {
    const { container } = show({ curves: chart.curves.slice(0, 2) });
    expect(container.querySelector("path.other")).toBeNull();
    expect(container.querySelector("path.grip")).not.toBeNull();
  });
});
