import styled from "styled-components";
import { colour, face, size, space, type } from "./theme";

/** The head of what stands at the machine: whose it is, how far it is, and the ways out of it. */
export const HandHead = styled.header`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(1)} ${space(4)};
  align-items: baseline;
  padding: ${space(2.5)} ${space(5)};
  border-bottom: ${size.line} solid ${colour("ink")};
  h1 {
    font-size: ${type.hand};
    font-weight: 600;
  }
  p,
  a {
    font: 400 ${type.run} ${face.narrow};
    color: ${colour("soft")};
  }
  a {
    min-height: 24px;
    color: ${colour("act")};
  }
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: ${space(1)} ${space(4)};
  }
`;
