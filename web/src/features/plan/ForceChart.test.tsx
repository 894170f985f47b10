import { fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Chart } from "../../api/client";
import { ForceChart } from "./ForceChart";
import { nearest } from "./ForceHandles";

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
  demand: [
    [0, 17],
    [4000, 17],
  ],
  demand_corner: [
    [0, 25],
    [4000, 25],
  ],
  demand_text: "17.0 kN",
  static_text: "46.0 kN",
  allowable: 48,
  allowable_text: "48.0 kN",
  cap: 2350,
  cap_force: 17,
  cap_text: "2 350",
  top: 1800,
  wall: null,
  wall_text: "",
  top_text: "1 800",
  // Steps of half a bar on a line that is steeper from 15 bar on.
  pressures: Array.from({ length: 51 }, (_, i) => 5 + i / 2).map((p) => [p, p < 15 ? 2 * p : 4 * p - 30]),
  pressure: 19,
  pressure_unit: "bar",
  pressure_path: "setups.s1.force.pressure_bar",
  over: false,
  points: [
    {
      name: "Face",
      rpm: 1800,
      force: 8,
      grip: 29,
      text: "1 800",
      cap_text: "2 600",
      nearest: false,
      over: false,
      path: "setups.s1.cuts.c1.clamp_rpm",
      words: "Clamp of Face",
    },
    {
      name: "Turn",
      rpm: 700,
      force: 17,
      grip: 43,
      text: "700",
      cap_text: "2 350",
      nearest: true,
      over: false,
      path: "setups.s1.cuts.c2.clamp_rpm",
      words: "Clamp of Turn",
    },
  ],
};

const pull = { type: vi.fn(), keep: vi.fn(), cancel: vi.fn() };

function show(more: Partial<Chart> = {}) {
  const { container } = render(<ForceChart chart={{ ...chart, ...more }} pull={pull} />);
  const number = (selector: string, name: string) =>
    Number(container.querySelector(selector)?.getAttribute(name) ?? Number.NaN);
  return { container, number };
}

describe("nearest", () => {
  it("gives the value of the list that is nearest, and stays on the list", () => {
    expect([-4, 2.4, 2.6, 90].map((v) => nearest([0, 2, 3, 9], v))).toEqual([0, 2, 3, 9]);
  });
});

describe("ForceChart", () => {
  beforeEach(() => {
    // jsdom has no layout: a frame of 772 × 372.
    vi.spyOn(HTMLElement.prototype, "clientWidth", "get").mockReturnValue(772);
    vi.spyOn(HTMLElement.prototype, "clientHeight", "get").mockReturnValue(372);
  });

  it("says in words what it draws", () => {
    show();
    const words = screen.getByRole("group").getAttribute("aria-label");
    expect(words).toContain("Standing still 46.0 kN; the worst cut needs 17.0 kN; the cap is 2 350 rpm");
  });

  it("draws the wall where there is room for it, and else says how high it stands", () => {
    const low = show({ wall: 40_000, wall_text: "40.0 kN", force_most: 50_000 });
    expect(low.container.querySelector("line.wall")).not.toBeNull();
    const high = show({ wall: 400_000, wall_text: "400.0 kN", force_most: 50_000 });
    expect(high.container.querySelector("line.wall")).toBeNull();
    expect(screen.getByText(/400\.0 kN, above what is drawn/)).toBeInTheDocument();
  });

  it("puts the cap's mark on its line, at the demand", () => {
    const { container, number } = show();
    expect(number("circle.cap-dot", "cx")).toBeCloseTo(number("line.cap-line", "x1"), 6);
    const level = container
      .querySelector("path.demand")
      ?.getAttribute("d")
      ?.match(/,([\d.]+)/)?.[1];
    expect(number("circle.cap-dot", "cy")).toBeCloseTo(Number(level), 6);
  });

  it("draws every cut at its own speed and need, the nearest to the curve and those over their cap marked", () => {
    const { container } = show();
    const [face, turn] = [...container.querySelectorAll("g.cut circle")];
    expect(Number(face?.getAttribute("cx"))).toBeGreaterThan(Number(turn?.getAttribute("cx")));
    expect(Number(face?.getAttribute("cy"))).toBeGreaterThan(Number(turn?.getAttribute("cy"))); // asks less
    expect(container.querySelectorAll("g.cut[data-nearest] line")).toHaveLength(1);
    expect(screen.getByText("Turn")).toHaveClass("strong");
    const over = chart.points.map((p, i) => (i === 0 ? { ...p, rpm: 3100, over: true } : p));
    const wrong = show({ points: over, over: true });
    expect(wrong.container.querySelector("g.cut[data-over] circle")).not.toBeNull();
    expect(wrong.container.querySelector("text.over")).toHaveTextContent("Face");
  });

  it("moves a cut's own clamp by its point", async () => {
    pull.type.mockClear();
    show();
    const handle = screen.getByRole("slider", { name: "Clamp of Turn on the picture, rpm" });
    handle.focus();
    await userEvent.keyboard("{ArrowRight}{Enter}");
    expect(pull.keep).toHaveBeenLastCalledWith("setups.s1.cuts.c2.clamp_rpm", { text: "710" });
  });

  it("leaves out a name that would stand on another", () => {
    const [one] = chart.points;
    const many = Array.from({ length: 14 }, (_, i) => ({
      ...(one as Chart["points"][number]),
      name: `Cut ${i}`,
      path: null,
    }));
    const { container } = show({ points: many });
    expect(container.querySelectorAll("g.cut")).toHaveLength(14);
    expect(screen.getAllByText(/^Cut \d+$/).length).toBeLessThan(14);
  });

  it("starts the curve at the axis and overlays the other jaws by name", () => {
    const { container } = show();
    const start = container
      .querySelector('[data-curve="grip"]')
      ?.getAttribute("d")
      ?.match(/^M([\d.]+)/)?.[1];
    const axis = container.querySelector("g.ticks")?.getAttribute("transform");
    expect(`translate(${Number(start)},0)`).toBe(axis);
    expect(container.querySelector("path.other")).not.toBeNull();
  });

  it("lays the other jaws beside or takes them away", async () => {
    const { container } = show();
    await userEvent.click(screen.getByRole("button", { name: "with aluminium jaws" }));
    expect(container.querySelector("path.other")).toBeNull();
    await userEvent.click(screen.getByRole("button", { name: "with aluminium jaws" }));
    expect(container.querySelector("path.other")).not.toBeNull();
  });

  it("draws the chuck's limit where there is room for it", () => {
    expect(show().container.querySelector("line.chuck")).not.toBeNull();
    expect(show({ allowable: 90 }).container.querySelector("line.chuck")).toBeNull();
  });

  it("moves the pressure by the arrow keys: previewed at each, kept by Enter, put back by Escape", async () => {
    pull.type.mockClear();
    show();
    const handle = screen.getByRole("slider", { name: "Gauge pressure on the picture, bar" });
    expect(handle).toHaveAttribute("aria-valuenow", "19");
    handle.focus();
    await userEvent.keyboard("{ArrowUp}{ArrowUp}");
    expect(pull.type.mock.calls.map((c) => c[1] as string)).toEqual(["19.5", "20"]);
    await userEvent.keyboard("{Enter}");
    expect(pull.keep).toHaveBeenCalledWith("setups.s1.force.pressure_bar", { text: "20" });
    await userEvent.keyboard("{End}{Escape}");
    expect(pull.type).toHaveBeenLastCalledWith("setups.s1.force.pressure_bar", "30");
    expect(pull.cancel).toHaveBeenCalledWith("setups.s1.force.pressure_bar");
  });

  it("reads the pressure off the height it is dragged to, on the chuck's own chart", () => {
    pull.type.mockClear();
    show();
    const handle = screen.getByRole("slider", { name: "Gauge pressure on the picture, bar" });
    handle.setPointerCapture = vi.fn();
    fireEvent.pointerDown(handle, { pointerId: 1 });
    fireEvent.pointerMove(handle, { pointerId: 1, clientY: 34 });
    fireEvent.pointerUp(handle, { pointerId: 1 });
    const [, text] = pull.type.mock.lastCall as [string, string];
    // Force 50 at the frame's top edge: 15 + 15·(50 − 30)/60 = 20 bar.
    expect(text).toBe("20");
    expect(pull.keep).toHaveBeenLastCalledWith("setups.s1.force.pressure_bar", { text: "20" });
  });

  it("offers no handle where the plan may not be changed", () => {
    show({ pressure_path: null, points: chart.points.map((p) => ({ ...p, path: null })) });
    expect(screen.queryAllByRole("slider")).toEqual([]);
  });

  it("draws without other jaws", () => {
    const { container } = show({ curves: chart.curves.slice(0, 2) });
    expect(container.querySelector("path.other")).toBeNull();
    expect(container.querySelector("path.grip")).not.toBeNull();
  });
});
