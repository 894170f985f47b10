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
/** The value of a list that is nearest to a wanted one. */
export function nearest(values: readonly number[], wanted: number): number {
  return values.reduce(
    (best, v) => (Math.abs(v - wanted) < Math.abs(best - wanted) ? v : best),
    values[0] ?? 0,
  );
}

type Grip = {
  name: string;
  path: string;
  value: number;
  /** What it may be set to, rising. */
  values: readonly number[];
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

  const { values } = grip;
  const [least, most] = [values[0] ?? 0, values.at(-1) ?? 0];

  function move(next: number) {
    setMoved(next);
    pull.type(grip.path, String(Number(next.toFixed(4))));
  }
  function moveBy(count: number) {
    const to = values.indexOf(nearest(values, value)) + count;
    move(values[Math.min(values.length - 1, Math.max(0, to))] ?? value);
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
    if (by !== undefined) moveBy(by);
    else if (event.key === "Home") move(least);
    else if (event.key === "End") move(most);
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
      aria-valuemin={least}
      aria-valuemax={most}
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

type Props = { chart: Chart; x: Scale; y: Scale; pull: Pull };

/** The pressure where the grip stands still, and the speed of each cut. */
export function ForceHandles({ chart, x, y, pull }: Props) {
  const pressures = chart.pressures.map((p) => p[0] ?? 0);
  const forceAt = (pressure: number) => chart.pressures[pressures.indexOf(pressure)]?.[1] ?? 0;
  const pressureAt = (force: number) => {
    const forces = chart.pressures.map((p) => p[1] ?? 0);
    return pressures[forces.indexOf(nearest(forces, force))] ?? 0;
  };
  const speeds = Array.from({ length: Math.floor(chart.rpm_most / 10) }, (_, i) => 10 * (i + 1));
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
            values: pressures,
            axis: "y",
            place: (value) => [x(0), y(forceAt(nearest(pressures, value)))],
            read: (at) => pressureAt(y.invert(at)),
          }}
        />
      )}
      {chart.points.map(
        (p) =>
          p.path !== null && (
            <Handle
              key={p.path}
              pull={pull}
              grip={{
                name: `${p.words} on the picture, rpm`,
                path: p.path,
                value: p.rpm,
                text: `${p.text} rpm, cap ${p.cap_text}`,
                values: speeds,
                axis: "x",
                place: (value) => [x(value), y(p.force)],
                read: (at) => nearest(speeds, x.invert(at)),
              }}
            />
          ),
      )}
    </>
  );
}
