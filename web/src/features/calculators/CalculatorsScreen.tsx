import { type ReactNode, useEffect, useState } from "react";
import { NavLink, useParams, useSearchParams } from "react-router";
import styled from "styled-components";
import type { Units } from "../../api/client";
import { AppHeader, Told } from "../../shared/ui/Page";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { givenOf } from "./draft";
import { OneCalculator } from "./OneCalculator";
import { useCalculators } from "./queries";

const Body = styled.main`
  display: grid;
  grid-template-columns: 13rem minmax(0, 1fr);
  @media ${fold.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const List = styled.nav`
  padding: ${space(3)} ${space(4)} ${space(12)};
  border-right: ${size.line} solid ${colour("hairline")};
  h2 {
    margin: ${space(3)} 0 ${space(0.5)};
    font: 600 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  a {
    display: block;
    padding: ${space(0.5)} 0;
    color: ${colour("ink")};
    text-decoration: none;
  }
  a[aria-current="page"] {
    font-weight: 600;
    box-shadow: inset 0 -2px 0 ${colour("act")};
  }
  @media ${fold.tablet} {
    a {
      padding: ${space(2)} 0;
    }
  }
  @media ${fold.phone} {
    display: flex;
    gap: ${space(4)};
    overflow-x: auto;
    padding-bottom: ${space(2)};
    white-space: nowrap;
    h2 {
      display: none;
    }
    div {
      display: flex;
      gap: ${space(4)};
    }
  }
`;

/** Every calculator by itself: a question that belongs to no plan. */
export function CalculatorsScreen({ tools }: { tools: ReactNode }) {
  const { name } = useParams();
  const [query] = useSearchParams();
  const [units, setUnits] = useState<Units>(query.get("units") === "inch" ? "inch" : "metric");
  const { data, isError } = useCalculators(units);
  const one = data?.calculators.find((c) => c.name === name) ?? data?.calculators[0];
  useEffect(() => {
    document.title = `${one?.title ?? "Calculators"} · Noble Anvil`;
  }, [one?.title]);
  return (
    <>
      <AppHeader title="Calculators" tools={tools} />
      <Body>
        <List aria-label="Calculators">
          {data?.groups.map(([key, title]) => (
            <div key={key}>
              <h2>{title}</h2>
              {data.calculators
                .filter((c) => c.group === key)
                .map((c) => (
                  <NavLink key={c.name} to={`/calculators/${c.name}`}>
                    {c.title}
                  </NavLink>
                ))}
            </div>
          ))}
        </List>
        {isError && <Told role="alert">The server does not answer.</Told>}
        {one && (
          <OneCalculator
            key={one.name}
            calculator={one}
            begin={givenOf(query)}
            units={units}
            onUnits={setUnits}
          />
        )}
      </Body>
    </>
  );
}
