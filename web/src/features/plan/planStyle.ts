import styled from "styled-components";
import { hidden } from "../../shared/ui/Page";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";

export const Page = styled.div`
  display: grid;
  grid-template: auto auto minmax(0, 1fr) / minmax(0, 1fr);
  height: 100%;
  @media ${fold.phone} {
    height: auto;
  }
`;

/** Rail, drawing over ledger, slip; on a tablet the slip folds under the drawing. */
export const Body = styled.main`
  grid-row: 3;
  display: grid;
  grid-template: "rail picture slip" minmax(260px, 54%) "rail lower slip" minmax(0, 1fr) / ${size.rail} minmax(0, 1fr) ${size.slip};
  min-height: 0;
  > nav {
    grid-area: rail;
  }
  > aside {
    grid-area: slip;
  }
  @media ${fold.tablet} {
    grid-template: "rail picture" 380px "rail slip" auto "rail lower" auto / ${size.rail} minmax(0, 1fr);
    overflow: auto;
    > nav {
      position: sticky;
      top: 0;
      height: calc(100vh - ${size.header});
    }
  }
  @media ${fold.phone} {
    grid-template: "rail" auto "picture" 320px "slip" auto "lower" auto / minmax(0, 1fr);
    overflow: visible;
    > nav {
      position: static;
      height: auto;
    }
  }
`;

export const Picture = styled.section`
  grid-area: picture;
  position: relative;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-width: 0;
  background: ${colour("card")};
  border-bottom: ${size.line} solid ${colour("hairline")};
`;

export const Views = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 ${space(4)};
  padding: ${space(2)} ${space(3.5)} 0;
  min-height: 30px;
  button {
    color: ${colour("soft")};
    text-decoration: none;
  }
  button[aria-pressed="true"] {
    color: ${colour("ink")};
    text-decoration: underline;
  }
  p {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("caution")};
    overflow-wrap: anywhere;
  }
  p:first-of-type {
    margin-left: auto;
  }
`;

export const Canvas = styled.div`
  position: relative;
  min-height: 0;
`;

export const Lower = styled.div`
  grid-area: lower;
  overflow: auto;
  min-height: 0;
  min-width: 0;
`;

export const Words = styled.p`
  ${hidden}
`;
