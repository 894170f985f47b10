import { scaleLinear, scaleTime } from "d3-scale";
import { line } from "d3-shape";
import { roomFor, SmallChart } from "../../shared/ui/SmallChart";

const LEFT = 40;

type Props = { points: readonly { on: string; condition: number }[]; greased: readonly string[] };

/** Measured over book, run by run, with the days on which the chuck was greased. */
export function TrendChart({ points, greased }: Props) {
  const room = roomFor(LEFT);
  const days = points.map((p) => new Date(p.on));
  const x = scaleTime([days[0] ?? new Date(), days.at(-1) ?? new Date()], room.x);
  const low = Math.min(0.5, ...points.map((p) => p.condition)) - 0.05;
  const y = scaleLinear([low, 1.05], room.y);
  const path = line<{ on: string; condition: number }>(
    (p) => x(new Date(p.on)),
    (p) => y(p.condition),
  );
  const [first, last] = [points[0], points.at(-1)];
  const said = (p?: { on: string; condition: number }) => `${p?.condition.toFixed(2)} on ${p?.on}`;
  return (
    <SmallChart
      words={`Condition from ${said(first)} to ${said(last)}.`}
      left={LEFT}
      y={y}
      number={(t) => t.toFixed(1)}
      below={[first?.on, `${last?.on}; dotted: greased`]}
    >
      {greased
        .filter((on) => first && last && on >= first.on && on <= last.on)
        .map((on) => (
          <line
            key={on}
            data-mark="dotted"
            x1={x(new Date(on))}
            x2={x(new Date(on))}
            y1={room.y[1]}
            y2={room.y[0]}
          >
            <title>greased {on}</title>
          </line>
        ))}
      <path d={path([...points]) ?? ""} />
      {points.map((p) => (
        <circle key={p.on} cx={x(new Date(p.on))} cy={y(p.condition)} r="4">
          <title>{`${p.on}: ${p.condition.toFixed(2)}`}</title>
        </circle>
      ))}
    </SmallChart>
  );
}
