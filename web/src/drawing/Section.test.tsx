import { fireEvent, render, screen } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Dimension, Scene, Shape } from "../api/client";
import { Section } from "./Section";

function shape(name: string, more: Partial<Shape> = {}): Shape {
  const points = [
    [0, 0],
    [50, 0],
    [50, 40],
  ];
  return { name, role: "jaw", points, closed: true, facts: [], stops: [], group: "", slides: null, ...more };
}

function dimension(name: string, more: Partial<Dimension> = {}): Dimension {
  return {
    name,
    fact: name,
    start: [0, 50],
    end: [50, 50],
    offset: 0,
    text: "50.00",
    stops: [],
    outside: "after",
    group: "",
    ...more,
  };
}

const scene: Scene = {
  labels: [{ point: [0, 0], text: "tooth 10", fact: "tooth", stops: ["jaws"], anchor: "start", group: "" }],
  shapes: [
    shape("jaw", { facts: ["jaw_height"] }),
    shape("axis", { closed: false }),
    shape("metal", { stops: ["jaws"] }),
  ],
  dimensions: [dimension("depth"), dimension("floor", { stops: ["jaws"] })],
  words: ["Half-section.", "Bored Ø84."],
};

function show(more: Partial<Parameters<typeof Section>[0]> = {}) {
  const onLight = vi.fn();
  const { container } = render(
    <Section scene={scene} stop="hold" lit={null} changed={() => false} onLight={onLight} {...more} />,
  );
  return { onLight, find: (selector: string) => container.querySelector(selector) };
}

describe("Section", () => {
  beforeEach(() => {
    // jsdom has no layout: a frame of 400 × 300.
    vi.spyOn(HTMLElement.prototype, "clientWidth", "get").mockReturnValue(400);
    vi.spyOn(HTMLElement.prototype, "clientHeight", "get").mockReturnValue(300);
  });

  it("has a text equivalent", () => {
    show();
    expect(screen.getByRole("img", { name: "Half-section. Bored Ø84." })).toBeInTheDocument();
  });

  it("draws what belongs to the stop and leaves out what does not", () => {
    const { find } = show();
    expect(find('[data-shape="jaw"]')).not.toBeNull();
    expect(find('[data-shape="metal"]')).toBeNull();
    expect(find('[data-dimension="floor"]')).toBeNull();
  });

  it("shows the layer of another stop there", () => {
    const { find } = show({ stop: "jaws" });
    expect(find('[data-shape="metal"]')).not.toBeNull();
    expect(find('[data-dimension="floor"]')).not.toBeNull();
  });

  it("closes shapes, leaves lines open, and keeps both to one scale", () => {
    const { find } = show();
    expect(find('[data-shape="jaw"]')?.getAttribute("d")).toMatch(/Z$/);
    expect(find('[data-shape="axis"]')?.getAttribute("d")).not.toMatch(/Z$/);
    const [a, b, c] = (find('[data-shape="jaw"]')?.getAttribute("d") ?? "")
      .slice(1, -1)
      .split("L")
      .map((p) => p.split(",").map(Number));
    const wide = (b?.[0] ?? 0) - (a?.[0] ?? 0);
    const high = (b?.[1] ?? 0) - (c?.[1] ?? 0);
    expect(wide / high).toBeCloseTo(50 / 40, 2);
  });

  it("lights what is pointed at, and shows a dimension that is only told when pointed at", () => {
    const { find } = show({ lit: "floor" });
    expect(find('[data-dimension="floor"]')?.getAttribute("data-lit")).toBe("true");
    expect(find('[data-dimension="depth"]')?.getAttribute("data-lit")).toBeNull();
  });

  it("marks what has changed", () => {
    const { find } = show({ changed: (name) => name === "depth" });
    expect(find('[data-dimension="depth"]')?.getAttribute("data-changed")).toBe("true");
  });

  it("lights the number when the drawing is pointed at", () => {
    const { find, onLight } = show();
    fireEvent.pointerEnter(find('[data-dimension="depth"]') as Element);
    expect(onLight).toHaveBeenLastCalledWith("depth");
    fireEvent.pointerEnter(find('[data-shape="jaw"]') as Element);
    expect(onLight).toHaveBeenLastCalledWith("jaw_height");
    fireEvent.pointerLeave(find('[data-shape="jaw"]') as Element);
    expect(onLight).toHaveBeenLastCalledWith(null);
  });

  it("draws what belongs to the facts in view, fits all, and leads tools along only while it plays", () => {
    const cuts: Scene = {
      ...scene,
      shapes: [
        shape("jaw"),
        shape("tool-c1", { role: "tool", group: "c1", slides: [40, 0] }),
        shape("tool-c2", { role: "tool", group: "c2", slides: [0, 10] }),
      ],
    };
    const still = show({ scene: cuts, group: "c1" });
    expect(still.find('[data-shape="tool-c1"]')).not.toBeNull();
    expect(still.find('[data-shape="tool-c2"]')).toBeNull();
    expect(still.find("[data-slides]")).toBeNull();
    const played = show({ scene: cuts, group: "c2", isPlaying: true });
    expect(played.find('[data-slides][data-shape="tool-c2"]')).not.toBeNull();
    expect(played.find('[data-slides][data-shape="jaw"]')).toBeNull();
  });

  it("steps by the arrow keys where there is something to step through, and moves once it is close", async () => {
    const onStep = vi.fn();
    show({ onStep });
    await vi.dynamicImportSettled();
    const drawing = screen.getByRole("group", { name: /arrows move/ });
    fireEvent.keyDown(drawing, { key: "ArrowRight" });
    fireEvent.keyDown(drawing, { key: "ArrowLeft" });
    expect(onStep.mock.calls).toEqual([[1], [-1]]);
    fireEvent.keyDown(drawing, { key: "+" });
    fireEvent.keyDown(drawing, { key: "ArrowRight" });
    expect(onStep).toHaveBeenCalledTimes(2);
  });
});
