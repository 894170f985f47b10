import { beforeAll, describe, expect, it } from "vitest";
import type { Dimension, Scene } from "../api/client";
import { type Drawn, drawnByTheCore, overlap } from "../tests/drawn";
import { buttonsTaken, layout } from "./layout";
import { type Box, place } from "./place";
import { figureSpots, labelSpots, placeTexts } from "./texts";
import type { Size } from "./useSize";

/** The picture at a desk, with the facts taking most of the height, on a tablet, on a phone. */
const SIZES: Record<string, Size> = {
  desk: { width: 772, height: 380 },
  "desk, low": { width: 772, height: 200 },
  tablet: { width: 568, height: 290 },
  phone: { width: 390, height: 260 },
};

function placed(drawn: Drawn, group: string | undefined, size: Size) {
  const { usual, labels, fitted } = layout(
    drawn.scene as Scene,
    { stop: drawn.stop, group, lit: null },
    size,
  );
  const found = placeTexts({ usual, labels, pointed: [] }, fitted, size, [buttonsTaken(size)]);
  return [...found.figures.values(), ...found.labels];
}

const at = { x: (mm: number) => 100 + mm, y: (mm: number) => 100 - mm, scale: 1 };
const figure = (name: string, more: Partial<Dimension> = {}): Dimension =>
  ({
    name,
    fact: name,
    text: "50.00",
    start: [0, 0],
    end: [200, 0],
    offset: 10,
    stops: [],
    outside: "after",
    group: "",
    ...more,
  }) as Dimension;

describe("the texts of a picture", () => {
  let drawn: Drawn[];
  beforeAll(() => {
    drawn = drawnByTheCore().filter((d) => d.scene);
  }, 120_000);

  it.each(Object.keys(SIZES))("stand on none of the others, and within the picture: %s", (name) => {
    const size = SIZES[name] as Size;
    expect(drawn.length).toBeGreaterThan(150);
    const wrong: string[] = [];
    for (const one of drawn) {
      for (const group of [undefined, ...one.groups]) {
        const boxes = placed(one, group, size).filter((b): b is Box => b !== null);
        const clash = boxes.some((a, i) => boxes.slice(i + 1).some((b) => overlap(a, b)));
        const out = boxes.some(
          (b) => b.x < 0 || b.y < 0 || b.x + b.width > size.width || b.y + b.height > size.height,
        );
        if (clash || out) wrong.push(`${one.name} ${group ?? ""}`);
      }
    }
    expect(wrong).toEqual([]);
  });

  it("has no figure that another's line goes through, where there is another place for it", () => {
    const [near, far] = [figure("near", { offset: -10 }), figure("far", { offset: -20 })];
    const { figures } = placeTexts(
      { usual: [near, far], labels: [], pointed: [] },
      at,
      { width: 400, height: 300 },
      [],
    );
    // The far one's own line lies at 120: over it, at 110, goes the near one's.
    expect((figures.get("far") as Box).y).toBeGreaterThanOrEqual(120);
  });

  it("are all there at a desk", () => {
    const left = drawn.flatMap((one) =>
      [undefined, ...one.groups]
        .filter((g) => placed(one, g, SIZES.desk as Size).includes(null))
        .map(() => one.name),
    );
    expect(left).toEqual([]);
  });

  it("stand over their line, and outside the arrows where there is no room between them", () => {
    const [over] = figureSpots(figure("length"), at, SIZES.desk as Size);
    expect([(over?.x ?? 0) + (over?.width ?? 0) / 2, (over?.y ?? 0) + (over?.height ?? 0) <= 90]).toEqual([
      200,
      true,
    ]);
    const [after] = figureSpots(figure("short", { end: [20, 0] }), at, SIZES.desk as Size);
    expect(after?.x).toBeGreaterThan(120);
    const [before] = figureSpots(
      figure("short", { end: [20, 0], outside: "before" }),
      at,
      SIZES.desk as Size,
    );
    expect((before?.x ?? 0) + (before?.width ?? 0)).toBeLessThan(100);
  });

  it("give way to what came before, and find the nearest free place", () => {
    const spot = { x: 100, y: 100, width: 50, height: 18 };
    const [first, second] = place([{ spots: [spot] }, { spots: [spot] }], { width: 400, height: 300 });
    expect(first).toEqual(spot);
    expect(second).toEqual({ ...spot, y: 80 });
    expect(
      place([{ spots: [spot] }, { spots: [spot], reach: 10 }], { width: 400, height: 300 })[1],
    ).toBeNull();
  });

  it("are not drawn beyond the edge of what is looked at", () => {
    const far = labelSpots(
      {
        point: [900, 0],
        text: "chuck",
        fact: "",
        stops: [],
        anchor: "start",
        group: "",
      } as Scene["labels"][number],
      at,
    );
    expect(place([{ spots: far }], { width: 400, height: 300 })).toEqual([null]);
  });
});
