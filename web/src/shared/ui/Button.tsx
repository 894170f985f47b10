import { Button as AriaButton, type ButtonProps } from "react-aria-components";
import styled from "styled-components";
import { reach } from "./reach";
import { colour, face, fold, size, space, type } from "./theme";

const Box = styled(AriaButton)`
  min-height: 32px;
  padding: ${space(1)} ${space(3.5)};
  background: transparent;
  border: ${size.line} solid ${colour("ink")};
  border-radius: ${size.radius};
  cursor: pointer;
  &[data-hovered] {
    border-color: ${colour("act")};
    color: ${colour("act")};
  }
  &[data-pressed] {
    background: ${colour("hairline")};
  }
  &[data-disabled] {
    color: ${colour("soft")};
    border-color: ${colour("hairline")};
    cursor: default;
  }
  @media ${fold.tablet} {
    min-width: ${size.touch};
    min-height: ${size.touch};
  }
`;

const Link = styled(AriaButton)`
  padding: 0;
  background: none;
  border: 0;
  color: ${colour("act")};
  font: 400 ${type.label} ${face.narrow};
  text-decoration: underline;
  text-underline-offset: 3px;
  cursor: pointer;
  text-align: left;
  &[data-hovered] {
    color: ${colour("ink")};
  }
  ${reach}
`;

/** An action with a frame. */
export function Button(props: ButtonProps) {
  return <Box {...props} />;
}

/** An action within text. */
export function TextButton(props: ButtonProps) {
  return <Link {...props} />;
}
