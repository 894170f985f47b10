import styled from "styled-components";
import { face, type } from "../shared/ui/theme";

/** What a drawing fills, and is measured by. */
export const Frame = styled.div`
  position: absolute;
  inset: 0;
  overflow: hidden;
`;

/** A drawing of our own in SVG. */
export const Picture = styled.svg`
  display: block;
  width: 100%;
  height: 100%;
  text {
    font: 400 ${type.label} ${face.narrow};
  }
`;
