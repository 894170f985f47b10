import { useState } from "react";
import styled from "styled-components";
import type { RunningDimension } from "../../api/client";
import { Steps } from "../../shared/quantity/Steps";
import { TextButton } from "../../shared/ui/Button";
import { colour, space, type } from "../../shared/ui/theme";
import { Hand, Soft } from "./hand";

const Box = styled.section`
  display: grid;
  gap: ${space(2)};
  justify-items: start;
  strong {
    font-size: ${type.handAnswer};
    font-weight: 600;
    line-height: 1.1;
    font-variant-numeric: tabular-nums;
  }
  p {
    font-size: ${type.run};
    line-height: 1.35;
  }
  ol {
    width: 100%;
    border-top: 1px solid ${colour("hairline")};
  }
`;

type Props = {
  dimension: RunningDimension;
  counted: number;
  mayMark: boolean;
  onDone: (amount: number) => void;
};

/** What to do at the offset that cuts a dimension, with one press that says it is done; or why it is left alone. */
export function AdviceBox({ dimension, counted, mayMark, onDone }: Props) {
  const [isShown, setShown] = useState(false);
  const { advice } = dimension;
  if (advice === null) return null;
  return (
    <Box aria-label="Advice" aria-live="polite">
      {advice.told ? (
        <>
          <Soft>After piece {counted}</Soft>
          <strong>X {advice.number}</strong>
          <p>on {advice.where}</p>
          <Soft>{advice.why}</Soft>
          <Hand data-main disabled={!mayMark} onClick={() => onDone(advice.amount_mm)}>
            Done after piece {counted}
          </Hand>
        </>
      ) : (
        <>
          <Soft>Offset of {dimension.title}</Soft>
          <p>Leave it alone.</p>
          <Soft>{advice.why}</Soft>
        </>
      )}
      {advice.steps.length > 0 && (
        <TextButton onPress={() => setShown((s) => !s)}>
          {isShown ? "hide working" : "show working"}
        </TextButton>
      )}
      {isShown && <Steps steps={advice.steps} />}
    </Box>
  );
}
