import type { ScaleLinear } from "d3-scale";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import type { Chart } from "../../api/client";

/** What dragging does to the plan: previewed while it moves, kept when it is let go. */
export type Pull = {
  type: (path: string, text: string) => void;
  keep: (path: string, entry: { text: string }) => void;
  cancel: (path: string) => void;
};

type Scale = ScaleLinear<number, number>;
type Points = readonly (readonly number[])[];

/** The value on a rising line of straight pieces, and the other way round. */
export function along(points: Points, value: number, from: 0 | 1): number {
  const to = from === 0 ? 1 : 0;
  const after = points.findIndex((p) => (p[from] ?? 0) >= value);
  if (after <= 0) return (after === 0 ? points[0] : points[points.length - 1])?.[to] ?? 0;
  const [a, b] = [points[after - 1] ?? [], points[after] ?? []];
  const [a0 = 0, b0 = 0, a1 = 0, b1 = 0] = [a[from], b[from], a[to], b[to]];
  return b0 === a0 ? b1 : a1 + ((b1 - a1) * (value - a0)) / (b0 - a0);
}

type Grip = {
  name: string;
  path: string;
  value: number;
  least: number;
  most: number;
  step: number;
  text: string;
  axis: "x" | "y";
  place: (value: number) => readonly [number, number];
  read: (at: number) => number;
};

type HandleProps = { grip: Grip; pull: Pull };

/** A figure that is taken hold of on the picture: dragged, or moved by the arrow keys and kept by Enter. */
function Handle({ grip, pull }: HandleProps) {
  const [moved, setMoved] = useState<number | null>(null);
  const dragging = useRef(false);
  const value = moved ?? grip.value;
  const [cx, cy] = grip.place(value);

  function move(to: number) {
    // Whole steps, but never past an end: the chart says nothing there.
    const next = Math.min(grip.most, Math.max(grip.least, Math.round(to / grip.step) * grip.step));
    setMoved(next);
    pull.type(grip.path, String(Number(next.toFixed(4))));
  }
  function keep() {
    if (moved !== null) pull.keep(grip.path, { text: String(Number(moved.toFixed(4))) });
    setMoved(null);
  }
  function back() {
    if (moved !== null) pull.cancel(grip.path);
    setMoved(null);
  }
  function onKeyDown(event: KeyboardEvent) {
    const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[
      event.key
    ];
    if (by !== undefined) move(value + by * grip.step);
    else if (event.key === "Home") move(grip.least);
    else if (event.key === "End") move(grip.most);
    else if (event.key === "Enter") keep();
    else if (event.key === "Escape") back();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
  function onPointerMove(event: PointerEvent<SVGCircleElement>) {
    if (!dragging.current) return;
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    if (box) move(grip.read(grip.axis === "y" ? event.clientY - box.top : event.clientX - box.left));
  }
  return (
    <circle
      className="handle"
      role="slider"
      tabIndex={0}
      aria-label={grip.name}
      aria-orientation={grip.axis === "y" ? "vertical" : "horizontal"}
      aria-valuemin={grip.least}
      aria-valuemax={grip.most}
      aria-valuenow={value}
      aria-valuetext={moved === null ? grip.text : undefined}
      cx={cx}
      cy={cy}
      r="8"
      style={{ touchAction: "none" }}
      onKeyDown={onKeyDown}
      onBlur={keep}
      onPointerDown={(event) => {
        dragging.current = true;
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={onPointerMove}
      onPointerUp={() => {
        dragging.current = false;
        keep();
      }}
      onPointerCancel={() => {
        dragging.current = false;
        back();
      }}
    >
      <title>{`${grip.name}: drag it, or move it with the arrow keys and keep it with Enter`}</title>
    </circle>
  );
}

type Props = { chart: Chart; x: Scale; y: Scale; top: number; pull: Pull };

/** The pressure where the grip stands still, and the program's top speed. */
export function ForceHandles({ chart, x, y, top, pull }: Props) {
  const low = chart.pressures[0]?.[0] ?? 0;
  const high = chart.pressures[chart.pressures.length - 1]?.[0] ?? low;
  return (
    <>
      {chart.pressure_path !== null && (
        <Handle
          pull={pull}
          grip={{
            name: `Gauge pressure on the picture, ${chart.pressure_unit}`,
            path: chart.pressure_path,
            value: chart.pressure,
            text: `${chart.pressure} ${chart.pressure_unit}`,
            least: low,
            most: high,
            step: chart.pressure_unit === "bar" ? 0.5 : 5,
            axis: "y",
            place: (value) => [x(0), y(along(chart.pressures, value, 0))],
            read: (at) => along(chart.pressures, y.invert(at), 1),
          }}
        />
      )}
      {chart.speed_path !== null && (
        <Handle
          pull={pull}
          grip={{
            name: chart.speed_path.endsWith("clamp_rpm")
              ? "Spindle clamp on the picture, rpm"
              : "Fixed speed on the picture, rpm",
            path: chart.speed_path,
            value: chart.top,
            text: `${chart.top_text} rpm`,
            least: 10,
            most: chart.rpm_most,
            step: 10,
            axis: "x",
            place: (value) => [x(value), top],
            read: (at) => x.invert(at),
          }}
        />
      )}
    </>
  );
}
