import { scaleLinear } from "d3-scale";
import type { Board } from "../../api/client";

/** Where a moment stands on the board's width, in %; what is before or behind the days shown stands at their edge. */
export function placeOf(board: Board): (at: number) => number {
  const [first, last] = bounds(board);
  return scaleLinear().domain([first, last]).range([0, 100]).clamp(true);
}

/** The first and the last moment shown. */
export function bounds({ days }: Board): [number, number] {
  return [days[0]?.begins ?? 0, days.at(-1)?.ends ?? 1];
}

/** How a moment reads on the shop's wall. */
export function onTheWall(at: number, zone: string): string {
  return new Date(at * 1000).toLocaleString("en-GB", {
    timeZone: zone,
    weekday: "short",
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });
}

/** A day on from an ISO day. */
export function daysOn(date: string, days: number): string {
  const day = new Date(`${date}T12:00:00Z`);
  day.setUTCDate(day.getUTCDate() + days);
  return day.toISOString().slice(0, 10);
}
