import styled from "styled-components";
import type { Step } from "../../api/client";
import { Tag } from "../ui/Tag";
import { colour, face, size, space, type } from "../ui/theme";
import { dress } from "./dress";

const Line = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 ${space(4)};
  padding: ${space(1.5)} 0;
  border-bottom: ${size.line} solid ${colour("hairline")};
  > p:first-child {
    color: ${colour("soft")};
    font: 400 ${type.label} ${face.narrow};
  }
  strong {
    font-weight: 600;
    text-align: right;
    white-space: nowrap;
  }
  code {
    grid-column: 1 / -1;
    font: 400 ${type.label}/1.4 ${face.plain};
    overflow-wrap: anywhere;
  }
  code span {
    color: ${colour("soft")};
  }
`;

/** How a figure came about: each step with its formula, the figures put in, the value, and where it is from. */
export function Steps({ steps }: { steps: readonly Step[] }) {
  return (
    <ol>
      {steps.map((step, i) => (
        <Line key={`${step.symbol} ${i}`}>
          <p>
            {step.label} · {step.source} {step.basis === "typical" && <Tag>typical</Tag>}
          </p>
          <strong>
            {step.value} {step.unit}
          </strong>
          <code>
            {step.symbol} = {dress(step.formula)} <span>= {dress(step.substituted)}</span>
          </code>
        </Line>
      ))}
    </ol>
  );
}
