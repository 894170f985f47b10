import styled from "styled-components";
import { colour, face, size, space, type } from "./theme";

/** A small framed word, such as “typical”. */
export const Tag = styled.span`
  display: inline-block;
  padding: 0 ${space(1.25)};
  border: ${size.line} solid ${colour("hairline")};
  border-radius: ${size.radius};
  font: 400 ${type.small} ${face.narrow};
  color: ${colour("soft")};
`;
