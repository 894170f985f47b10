import styled from "styled-components";
import type { Dimension } from "../api/client";
import { colour, face, type } from "../shared/ui/theme";
import type { Projection } from "./project";

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

const HEAD = 8;
const CHARACTER = 7.6; // px, about, for the ground behind the text

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
  lit: boolean;
  changed: boolean;
  onLight: (name: string | null) => void;
};

/** A dimension: reach lines, arrow heads, figure. */
export function DimensionLine({ dimension, at, lit, changed, onLight }: Props) {
  const [ax = 0, ay = 0] = dimension.start;
  const [bx = 0, by = 0] = dimension.end;
  const upright = ax === bx;
  const from = { x: at.x(ax), y: at.y(ay) };
  const to = { x: at.x(bx), y: at.y(by) };
  const shift = dimension.offset * at.scale;
  const a = upright ? { x: from.x + shift, y: from.y } : { x: from.x, y: from.y - shift };
  const b = upright ? { x: to.x + shift, y: to.y } : { x: to.x, y: to.y - shift };
  const angle = Math.atan2(b.y - a.y, b.x - a.x);
  const width = dimension.text.length * CHARACTER + 6;
  // Where the arrows leave no room for the figure it stands outside them.
  const cramped = !upright && Math.abs(b.x - a.x) < width + 2 * HEAD;
  const outside = dimension.outside === "before" ? Math.min(a.x, b.x) - width : Math.max(a.x, b.x) + 6;
  // A figure on an upright line is written along it, read from the right, below the axis.
  const middle = upright
    ? { x: a.x - 5, y: a.y + (b.y - a.y) * 0.28 + width / 2 }
    : { x: cramped ? outside : (a.x + b.x) / 2 - width / 2 + 3, y: cramped ? a.y + 5 : a.y - 5 };
  const turned = upright ? `rotate(-90 ${middle.x} ${middle.y})` : undefined;
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
      <g transform={turned}>
        <rect x={middle.x - 3} y={middle.y - 13} width={width} height={16} />
        <text x={middle.x} y={middle.y}>
          {dimension.text}
        </text>
      </g>
    </Group>
  );
}
