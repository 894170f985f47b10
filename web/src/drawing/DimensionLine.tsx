import styled from "styled-components";
import type { Dimension } from "../api/client";
import { colour, face, type } from "../shared/ui/theme";
import { Leader } from "./Leader";
import type { Box } from "./place";
import type { Projection } from "./project";
import { HEAD, lineOf } from "./texts";

const Group = styled.g`
  stroke: ${colour("soft")};
  stroke-width: 1;
  path.head {
    fill: ${colour("soft")};
    stroke: none;
  }
  line.reach {
    stroke: ${colour("hairline")};
  }
  rect {
    fill: ${colour("card")};
    stroke: none;
    opacity: 0.86;
  }
  && text {
    stroke: none;
    pointer-events: none;
    fill: ${colour("ink")};
    font: 400 ${type.label} ${face.plain};
  }
  &[data-lit],
  &[data-changed] {
    stroke: ${colour("point")};
    stroke-width: 2;
    path.head {
      fill: ${colour("point")};
    }
    text {
      fill: ${colour("pointInk")};
      font-weight: 600;
    }
  }
`;

function head(x: number, y: number, angle: number): string {
  const back = (turn: number) => {
    const a = angle + Math.PI + turn;
    return `${x + HEAD * Math.cos(a)},${y + HEAD * Math.sin(a)}`;
  };
  return `M${x},${y}L${back(0.32)}L${back(-0.32)}Z`;
}

type Props = {
  dimension: Dimension;
  at: Projection;
  /** Where its figure stands; nowhere where there is no room for it. */
  box: Box | null;
  lit: boolean;
  changed: boolean;
  onLight: (name: string | null) => void;
};

/** A dimension: reach lines, arrow heads, figure. */
export function DimensionLine({ dimension, at, box, lit, changed, onLight }: Props) {
  const { from, to, a, b, upright } = lineOf(dimension, at);
  const angle = Math.atan2(b.y - a.y, b.x - a.x);
  const on = box && {
    x: Math.min(Math.max(a.x, b.x), Math.max(Math.min(a.x, b.x), box.x + box.width / 2)),
    y: Math.min(Math.max(a.y, b.y), Math.max(Math.min(a.y, b.y), box.y + box.height / 2)),
  };
  const middle = box && { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  return (
    <Group
      data-dimension={dimension.name}
      data-lit={lit || undefined}
      data-changed={changed || undefined}
      onPointerEnter={() => onLight(dimension.fact)}
      onPointerLeave={() => onLight(null)}
    >
      <line className="reach" x1={from.x} y1={from.y} x2={a.x} y2={a.y} />
      <line className="reach" x1={to.x} y1={to.y} x2={b.x} y2={b.y} />
      <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} />
      <path className="head" d={head(b.x, b.y, angle)} />
      <path className="head" d={head(a.x, a.y, angle + Math.PI)} />
      {box && on && middle && (
        <>
          <Leader box={box} point={on} />
          <rect x={box.x} y={box.y} width={box.width} height={box.height} />
          <text
            textAnchor="middle"
            x={middle.x}
            y={middle.y + 5}
            transform={upright ? `rotate(-90 ${middle.x} ${middle.y})` : undefined}
          >
            {dimension.text}
          </text>
        </>
      )}
    </Group>
  );
}
