import { useEffect, useRef } from "react";
import styled from "styled-components";
import type { Answer, Step, Units } from "../../api/client";
import { dress } from "../../shared/quantity/dress";
import { SymbolKey } from "../../shared/quantity/SymbolKey";
import { TextButton } from "../../shared/ui/Button";
import { Tag } from "../../shared/ui/Tag";
import { colour, face, size, space, type } from "../../shared/ui/theme";

const Section = styled.section`
  padding: ${space(2.5)} ${space(4)} ${space(5)};
  header {
    display: flex;
    gap: ${space(4)};
    align-items: baseline;
    margin-bottom: ${space(2)};
  }
  h2 {
    font-size: ${type.title};
    font-weight: 600;
  }
  header p {
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  header button {
    margin-left: auto;
  }
`;

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

type Props = { answer: Answer; steps: readonly Step[] | undefined; units: Units; onClose: () => void };

/** How an answer came about: each step with its formula, the figures put in, and its source. */
export function WorkingSheet({ answer, steps, units, onClose }: Props) {
  const sheet = useRef<HTMLElement>(null);
  // On a tablet the sheet lies below the fold: bring it into view for the answer that was asked.
  // biome-ignore lint/correctness/useExhaustiveDependencies: runs when another answer is asked
  useEffect(() => {
    sheet.current?.scrollIntoView({ block: "nearest" });
  }, [answer.name]);
  return (
    <Section ref={sheet} aria-label={`Working of ${answer.label}`}>
      <header>
        <h2>Working: {answer.label}</h2>
        {units === "inch" && <p>worked in millimetres and newtons</p>}
        <TextButton onPress={onClose}>back to the facts</TextButton>
      </header>
      <ol>
        {(steps ?? []).map((step, i) => (
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
      <SymbolKey steps={steps ?? []} />
    </Section>
  );
}
