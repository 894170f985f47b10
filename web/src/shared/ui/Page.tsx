import type { ReactNode } from "react";
import styled from "styled-components";
import { colour, face, fold, size, space, type } from "./theme";

const Centre = styled.main`
  display: grid;
  place-content: center;
  justify-items: center;
  gap: ${space(4)};
  min-height: 100%;
  padding: ${space(6)};
  color: ${colour("soft")};
`;

/** A page with one thing to say. */
export function Blank({ children }: { children: ReactNode }) {
  return <Centre>{children}</Centre>;
}

export const Header = styled.header`
  position: sticky;
  top: 0;
  z-index: 2;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space(1)} ${space(5)};
  min-height: ${size.header};
  padding: ${space(1)} ${space(4.5)};
  background: ${colour("sheet")};
  border-bottom: ${size.line} solid ${colour("ink")};
  a {
    color: ${colour("ink")};
    text-decoration: none;
    font-weight: 600;
    font-size: ${type.body};
  }
  a:hover {
    color: ${colour("act")};
  }
`;

export const HeaderTitle = styled.h1`
  font-size: ${type.run};
  font-weight: 400;
  span {
    color: ${colour("soft")};
  }
`;

export const HeaderNote = styled.p`
  color: ${colour("soft")};
  font: 400 ${type.label} ${face.narrow};
  &[data-strong] {
    color: ${colour("caution")};
    font-weight: 600;
  }
  @media ${fold.tablet} {
    &[data-detail] {
      display: none;
    }
  }
`;

export const HeaderSide = styled.div`
  display: flex;
  align-items: center;
  gap: ${space(4)};
  margin-left: auto;
`;
