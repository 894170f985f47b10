import { useEffect, useRef } from "react";
import styled from "styled-components";
import type { Answer, Step, Units } from "../../api/client";
import { Steps } from "../../shared/quantity/Steps";
import { SymbolKey } from "../../shared/quantity/SymbolKey";
import { TextButton } from "../../shared/ui/Button";
import { colour, face, space, type } from "../../shared/ui/theme";

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
      <Steps steps={steps ?? []} />
      <SymbolKey steps={steps ?? []} />
    </Section>
  );
}
