import { scaleLinear, scalePoint } from "d3-scale";
import type { Compared } from "../../api/client";
import { roomFor, SmallChart } from "../../shared/ui/SmallChart";

const LEFT = 52;
const INSET = 12;

/** Measured as a dot, predicted as a ring, what lies between them as a line; one after another. */
export function ReadingsChart({ of }: { of: Compared }) {
  const room = roomFor(LEFT);
  const values = of.points.flatMap((p) => (p.predicted === null ? [p.measured] : [p.measured, p.predicted]));
  const [least, most] = [Math.min(0, ...values), Math.max(...values)];
  const y = scaleLinear([least, most === least ? least + 1 : most], room.y).nice(4);
  const x = scalePoint(
    of.points.map((_, i) => i),
    [room.x[0] + INSET, room.x[1] - INSET],
  );
  const last = of.points.at(-1);
  return (
    <SmallChart
      words={`${of.title}: ${of.points.length} read; the last ${last?.words ?? ""}, ${last?.run ?? ""}.`}
      left={LEFT}
      y={y}
      number={y.tickFormat(4)}
      below={["dot: measured · ring: predicted", of.unit]}
    >
      {of.points.map((p, i) => {
        const at = x(i) ?? LEFT;
        return (
          <g key={i}>
            <title>{`${new Date(p.at).toLocaleDateString()}, ${p.run}: ${p.words}`}</title>
            {p.predicted !== null && (
              <>
                <line data-mark="pointed" x1={at} x2={at} y1={y(p.measured)} y2={y(p.predicted)} />
                <circle data-mark="ring" cx={at} cy={y(p.predicted)} r="4" />
              </>
            )}
            <circle cx={at} cy={y(p.measured)} r="4" />
          </g>
        );
      })}
    </SmallChart>
  );
}
