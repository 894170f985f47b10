import type { ScaleLinear } from "d3-scale";
import type { Chart } from "../../api/client";

type Scale = ScaleLinear<number, number>;
type Named = { name: string; kind: string; x: number; y: number; anchor: "start" | "end" };

const LINE = 17;
const LETTER = 6.4;
const BESIDE = 9;

/**
 * Where the cuts' names stand beside their points: the nearest to its curve first, then those over their cap, then the
 * others as far as there is room. A name that would stand on another is left to its point's own words.
 */
export function named(
  points: Chart["points"],
  x: Scale,
  y: Scale,
  { big, right }: { big: number; right: number },
): Named[] {
  const rank = (p: Chart["points"][number]) => (p.over ? 0 : p.nearest ? 1 : 2);
  // No name stands on a point or its handle.
  const placed = points.map((p) => ({
    left: x(p.rpm) - BESIDE,
    right: x(p.rpm) + BESIDE,
    y: y(p.force) + 5,
  }));
  const found: Named[] = [];
  for (const p of [...points].sort((a, b) => rank(a) - rank(b))) {
    const wide = p.name.length * LETTER * big;
    const atEnd = x(p.rpm) + BESIDE + wide > right;
    const left = atEnd ? x(p.rpm) - BESIDE - wide : x(p.rpm) + BESIDE;
    const own = points.indexOf(p);
    const tries = [0, -1, 1, -2, 2].map((k) => y(p.force) + 5 + k * LINE * big);
    const free = tries.find((at) =>
      placed.every(
        (o, i) => i === own || left > o.right || left + wide < o.left || Math.abs(at - o.y) >= LINE * big,
      ),
    );
    if (free === undefined) continue;
    placed.push({ left, right: left + wide, y: free });
    found.push({
      name: p.name,
      kind: p.over ? "over" : p.nearest ? "strong" : "",
      x: atEnd ? x(p.rpm) - BESIDE : x(p.rpm) + BESIDE,
      y: free,
      anchor: atEnd ? "end" : "start",
    });
  }
  return found;
}
