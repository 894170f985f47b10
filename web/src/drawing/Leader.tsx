import type { Box } from "./place";

const NEAR = 26;

type Props = { box: Box; point: { x: number; y: number } };

/** A thin line from a text that had to stand away to what it speaks of. */
export function Leader({ box, point }: Props) {
  const x = Math.min(box.x + box.width, Math.max(box.x, point.x));
  const y = Math.min(box.y + box.height, Math.max(box.y, point.y));
  if (Math.hypot(x - point.x, y - point.y) < NEAR) return null;
  return <line className="leader" x1={x} y1={y} x2={point.x} y2={point.y} />;
}
