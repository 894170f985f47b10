import styled from "styled-components";
import { colour } from "../shared/ui/theme";
import { Picture } from "./frame";

/** A chart: its lines and words by class. */
export const ChartPicture = styled(Picture)`
  text {
    fill: ${colour("soft")};
    paint-order: stroke;
    stroke: ${colour("card")};
    stroke-width: 4px;
    stroke-linejoin: round;
  }
  text.strong {
    fill: ${colour("ink")};
  }
  text.cap {
    fill: ${colour("pointInk")};
    font-weight: 600;
  }
  text.over {
    fill: ${colour("stop")};
    font-weight: 600;
  }
  .ticks line {
    stroke: ${colour("hairline")};
    stroke-width: 0.75;
  }
  .leader {
    stroke: ${colour("soft")};
  }
  .ticks .domain {
    stroke: none;
  }
  .axis {
    stroke: ${colour("soft")};
  }
  path {
    fill: none;
  }
  .grip {
    stroke: ${colour("ink")};
    stroke-width: 2.5;
  }
  .corner {
    stroke: ${colour("soft")};
    stroke-width: 1;
  }
  .other {
    stroke: ${colour("ink")};
    stroke-width: 1.5;
    stroke-dasharray: 3 4;
  }
  .demand {
    stroke: ${colour("ink")};
    stroke-width: 2;
    stroke-dasharray: 14 5;
  }
  .demand-corner {
    stroke: ${colour("soft")};
    stroke-width: 1;
    stroke-dasharray: 6 4;
  }
  .chuck {
    stroke: ${colour("soft")};
    stroke-width: 1.5;
    stroke-dasharray: 2 3;
  }
  .handle {
    fill: ${colour("card")};
    stroke: ${colour("act")};
    stroke-width: 3;
    cursor: grab;
    outline: none;
  }
  .handle:focus-visible {
    fill: ${colour("act")};
  }
  .wall {
    stroke: ${colour("stop")};
    stroke-width: 1.5;
    stroke-dasharray: 8 3 2 3;
  }
  .cap-line {
    stroke: ${colour("point")};
    stroke-width: 2.5;
  }
  .cap-dot {
    fill: ${colour("point")};
  }
  .cut circle {
    fill: ${colour("ink")};
  }
  .cut line {
    stroke: ${colour("act")};
    stroke-width: 1.5;
    stroke-dasharray: 2 3;
  }
  .cut[data-nearest] circle {
    fill: ${colour("act")};
  }
  .cut[data-over] circle {
    fill: ${colour("stop")};
  }
  .cut[data-over] line {
    stroke: ${colour("stop")};
  }
  .dots {
    fill: ${colour("soft")};
  }
`;
