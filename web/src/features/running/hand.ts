import styled, { css } from "styled-components";
import { colour, face, size, space, type } from "../../shared/ui/theme";

/** A button for a hand in a glove. */
export const handButton = css`
  min-height: ${size.hand};
  padding: ${space(2)} ${space(4)};
  background: ${colour("card")};
  border: ${size.thick} solid ${colour("ink")};
  border-radius: ${size.radius};
  font-size: ${type.hand};
  cursor: pointer;
  &[aria-pressed="true"],
  &[data-main] {
    background: ${colour("ink")};
    color: ${colour("card")};
  }
  &[data-stop] {
    border-color: ${colour("stop")};
    color: ${colour("stop")};
  }
  &:disabled {
    background: ${colour("hairline")};
    border-color: ${colour("hairline")};
    color: ${colour("soft")};
    cursor: default;
  }
`;

export const Hand = styled.button.attrs({ type: "button" })`
  ${handButton}
`;

export const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(2)};
  align-items: end;
`;

export const Wrong = styled.p`
  font: 400 ${type.run} ${face.narrow};
  color: ${colour("stop")};
`;

export const Soft = styled.p`
  font: 400 ${type.run}/1.35 ${face.narrow};
  color: ${colour("soft")};
`;
