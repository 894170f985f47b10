import { execFileSync } from "node:child_process";
import type { Chart, Scene } from "../api/client";
import type { Box } from "../drawing/place";

export type Drawn = { name: string; stop: string; groups: string[]; scene?: Scene; chart?: Chart };

/** Every picture of the demo's plans and of ten of odd sizes, as the core sends them. */
export function drawnByTheCore(): Drawn[] {
  const lines = execFileSync("../.venv/bin/python", ["-m", "calc.tests.pictures"], {
    env: { ...process.env, PYTHONPATH: ".." },
    maxBuffer: 64_000_000,
    encoding: "utf8",
  });
  return lines
    .trim()
    .split("\n")
    .map((line) => JSON.parse(line));
}

/** Whether two boxes share any of their ground. */
export const overlap = (a: Box, b: Box) =>
  Math.min(a.x + a.width, b.x + b.width) > Math.max(a.x, b.x) &&
  Math.min(a.y + a.height, b.y + b.height) > Math.max(a.y, b.y);
