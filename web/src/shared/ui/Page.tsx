import type { ReactNode } from "react";
import { Link, NavLink } from "react-router";
import styled from "styled-components";
import { reach } from "./reach";
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
  gap: ${space(1)} ${space(3)};
  min-height: ${size.header};
  padding: ${space(1)} ${space(4.5)};
  background: ${colour("sheet")};
  border-bottom: ${size.line} solid ${colour("ink")};
  a {
    color: ${colour("ink")};
    text-decoration: none;
    font-weight: 600;
    font-size: ${type.body};
    ${reach}
  }
  a:hover {
    color: ${colour("act")};
  }
  p a {
    white-space: nowrap;
  }
  /* There the plan's own line stays in view instead. */
  @media ${fold.phone} {
    position: static;
  }
`;

export const HeaderTitle = styled.h1`
  overflow-wrap: anywhere;
  font-size: ${type.run};
  font-weight: 400;
  span {
    color: ${colour("soft")};
  }
`;

/** What is looked at and how it stands: in one line, or one below the other where the line is short. */
export const HeaderPlate = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 ${space(3)};
  min-width: 0;
  @media ${fold.tablet} {
    flex: 1 1 12rem;
    flex-direction: column;
    align-items: flex-start;
  }
`;

export const HeaderNote = styled.p`
  color: ${colour("soft")};
  font: 400 ${type.label} ${face.narrow};
  &[data-strong] {
    color: ${colour("caution")};
    font-weight: 600;
  }
  overflow-wrap: anywhere;
  /* The head stays one line: what stands at Part goes first. */
  @media ${fold.desk} {
    [data-detail] {
      display: none;
    }
  }
  @media ${fold.tablet} {
    [data-room] {
      display: none;
    }
    /* Below the head lies what else is hit. */
    a::before {
      transform: translate(-50%, -68%);
    }
  }
`;

export const HeaderSide = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space(1.5)} ${space(4)};
  margin-left: auto;
  @media ${fold.tablet} {
    gap: ${space(1.5)} ${space(2)};
  }
  @media ${fold.phone} {
    gap: ${space(1.5)} ${space(2)};
    margin-left: 0;
  }
`;

export const Places = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(1)} ${space(4)};
  a {
    font-weight: 400;
    color: ${colour("soft")};
  }
  a[aria-current="page"] {
    color: ${colour("ink")};
    box-shadow: 0 2px 0 ${colour("ink")};
  }
`;

/** The head of every place but a plan: where one can go, where one is, and the tools. */
export function AppHeader({ title, tools }: { title: string; tools: ReactNode }) {
  return (
    <Header>
      <Link to="/">Noble Anvil</Link>
      <Places aria-label="Places">
        <NavLink to="/" end>
          Bench
        </NavLink>
        <NavLink to="/board">Board</NavLink>
        <NavLink to="/shelf">Shelf</NavLink>
        <NavLink to="/notebook">Notebook</NavLink>
        <NavLink to="/practice">Practice</NavLink>
        <NavLink to="/calculators">Calculators</NavLink>
        <NavLink to="/rules">House rules</NavLink>
      </Places>
      <HiddenTitle>{title}</HiddenTitle>
      <HeaderSide>{tools}</HeaderSide>
    </Header>
  );
}

/** For readers of the page who do not see it. */
export const hidden = `
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
`;

const HiddenTitle = styled.h1`
  ${hidden}
`;

/** A page of one column of text and forms. */
export const Column = styled.main`
  display: grid;
  gap: ${space(5)};
  max-width: 720px;
  margin: 0 auto;
  padding: ${space(6)} ${space(4.5)} ${space(12)};
  h2 {
    font-size: ${type.run};
    font-weight: 600;
  }
  h3 {
    font-size: ${type.title};
    font-weight: 600;
  }
  form {
    display: grid;
    gap: ${space(4)};
    justify-items: start;
    > div {
      width: 100%;
    }
  }
`;

/** What came of an action, in words. */
export const Told = styled.p`
  min-height: 1.4em;
  font: 400 ${type.label}/1.35 ${face.narrow};
  color: ${colour("soft")};
  &[role="alert"] {
    color: ${colour("stop")};
  }
`;
