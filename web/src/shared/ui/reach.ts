import { css } from "styled-components";
import { fold, size } from "./theme";

/** What is small for the eye and large for a finger: on a tablet, and on a phone, it is hit within 44 px. */
export const reach = css`
  @media ${fold.tablet} {
    position: relative;
    &::before {
      content: "";
      position: absolute;
      top: 50%;
      left: 50%;
      width: max(100%, ${size.touch});
      height: max(100%, ${size.touch});
      transform: translate(-50%, -50%);
    }
  }
`;
