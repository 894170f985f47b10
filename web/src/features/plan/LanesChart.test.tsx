import { render, screen } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Picture } from "../../api/client";
import { overlap } from "../../tests/drawn";
import { LanesChart } from "./LanesChart";

type Block = NonNullable<Picture["lanes"]>[number]["blocks"][number];

const block = (label: string, start: number, seconds: number, kind: Block["kind"] = "cut"): Block => ({
  label,
  start,
  seconds,
  kind,
  text: `${seconds} s`,
  fact: "",
  path: "",
});

/** A main lane of many short cuts and a second that waits; both part off at 60 s. */
const picture: Picture = {
  kind: "lanes",
  name: "lanes",
  title: "Lanes",
  group: "",
  words: "One piece takes 68 s.",
  unit: "s",
  ranges: [],
  at: null,
  at_text: "",
  lines: [],
  mark: null,
  mark_text: "",
  outline: [],
  hole: 0,
  letters: [],
  cycle: 68,
  lanes: [
    {
      label: "main",
      blocks: [
        ...Array.from({ length: 12 }, (_, i) => [
          block("", 5 * i, 2, "between"),
          block(`Rough Collar ${i}`, 5 * i + 2, 3),
        ]).flat(),
        block("part off, together", 60, 8, "together"),
      ],
    },
    {
      label: "second",
      blocks: [block("waits", 0, 60, "waits"), block("part off, together", 60, 8, "together")],
    },
  ],
};

describe("LanesChart", () => {
  beforeEach(() => {
    vi.spyOn(HTMLElement.prototype, "clientWidth", "get").mockReturnValue(760);
    vi.spyOn(HTMLElement.prototype, "clientHeight", "get").mockReturnValue(380);
  });

  it("draws every block to one scale, and the shared part-off at one time on both", () => {
    const { container } = render(<LanesChart picture={picture} />);
    expect(screen.getByRole("img", { name: "Lanes. One piece takes 68 s." })).toBeInTheDocument();
    const of = (kind: string) =>
      [...container.querySelectorAll(`rect[data-kind="${kind}"]`)].map((r) => ({
        x: Number(r.getAttribute("x")),
        width: Number(r.getAttribute("width")),
      }));
    const [first, second] = of("together");
    expect(first).toEqual(second);
    const cuts = of("cut");
    expect(cuts).toHaveLength(12);
    for (const cut of cuts) expect(cut.width / (first?.width ?? 0)).toBeCloseTo(3 / 8, 6);
    expect(container.querySelector("title")?.textContent).toBe("between: 2 s");
  });

  it("names every block, none of them on another name", () => {
    const { container } = render(<LanesChart picture={picture} />);
    const names = [...container.querySelectorAll("g > text")].filter((t) =>
      /Rough|part off|waits/.test(t.textContent ?? ""),
    );
    expect(names).toHaveLength(15);
    const boxes = names.map((t) => ({
      x: Number(t.getAttribute("x")),
      y: Number(t.getAttribute("y")) - 14,
      width: 6 * (t.textContent ?? "").length,
      height: 16,
    }));
    expect(boxes.some((a, i) => boxes.slice(i + 1).some((b) => overlap(a, b)))).toBe(false);
  });
});
