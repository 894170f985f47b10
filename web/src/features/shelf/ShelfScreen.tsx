import { type ReactNode, useEffect, useState } from "react";
import { NavLink, useParams } from "react-router";
import styled from "styled-components";
import type { KindName, Session, ShelfKind, Units } from "../../api/client";
import { useStored, writeStored } from "../../shared/stored";
import { Button } from "../../shared/ui/Button";
import { AppHeader, Blank } from "../../shared/ui/Page";
import { Segments } from "../../shared/ui/Segments";
import { Tag } from "../../shared/ui/Tag";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { FilePanel } from "./FilePanel";
import { ItemPage } from "./ItemPage";
import { useShelf } from "./queries";

const Page = styled.div`
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
  height: 100%;
  @media ${fold.tablet} {
    height: auto;
  }
`;

const Body = styled.main`
  display: grid;
  grid-template-columns: 16.75rem minmax(0, 1fr);
  min-height: 0;
  @media ${fold.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const Rail = styled.nav`
  padding: ${space(3)} 0 ${space(8)};
  border-right: ${size.line} solid ${colour("hairline")};
  overflow: auto;
  h2 {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    padding: ${space(3)} ${space(4.5)} ${space(1)};
    font: 600 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  h2 span {
    display: flex;
    gap: ${space(3)};
    font-weight: 400;
  }
  li a {
    display: block;
    padding: ${space(1.5)} ${space(4.5)};
    color: ${colour("ink")};
    text-decoration: none;
    overflow-wrap: anywhere;
  }
  li a:hover {
    color: ${colour("act")};
  }
  li a[aria-current="page"] {
    background: ${colour("card")};
    box-shadow:
      inset 3px 0 0 ${colour("act")},
      0 1px 0 ${colour("hairline")},
      0 -1px 0 ${colour("hairline")};
  }
  li a:focus-visible {
    outline-offset: -2px;
  }
  small {
    display: block;
    font: 400 ${type.small}/1.25 ${face.narrow};
    color: ${colour("soft")};
  }
  @media ${fold.phone} {
    border-right: 0;
    max-height: 40vh;
    border-bottom: ${size.line} solid ${colour("ink")};
  }
`;

const Start = styled.div`
  padding: ${space(6)} ${space(5)};
  max-width: 64ch;
  display: grid;
  gap: ${space(3)};
  align-content: start;
  color: ${colour("soft")};
  h2 {
    font-size: ${type.run};
    font-weight: 600;
    color: ${colour("ink")};
  }
`;

const UNITS = "noble-anvil-shelf-units";

function Kind({ kind, mayEdit }: { kind: ShelfKind; mayEdit: boolean }) {
  return (
    <section aria-label={kind.title}>
      <h2>
        {kind.title}
        <span>
          {mayEdit && (
            <NavLink to={`/shelf/${kind.kind}/new`} aria-label={`Put in a ${kind.noun}`}>
              put in
            </NavLink>
          )}
          <NavLink to={`/shelf/${kind.kind}`} end aria-label={`${kind.title} as a file`}>
            file
          </NavLink>
        </span>
      </h2>
      <ul>
        {kind.items.map((i) => (
          <li key={i.key}>
            <NavLink to={`/shelf/${kind.kind}/${i.key}`}>
              {i.name} {i.typical > 0 && <Tag>{i.typical} typical</Tag>}
              <small>
                {i.line}
                {i.runs > 0 && ` · ${i.runs} ${i.runs === 1 ? "run" : "runs"}`}
              </small>
            </NavLink>
          </li>
        ))}
      </ul>
    </section>
  );
}

type Props = { session: Session; tools: ReactNode };

/** What the shop has: machines, chucks, jaw blanks, materials. */
export function ShelfScreen({ session, tools }: Props) {
  const { kind, itemKey } = useParams();
  const shelf = useShelf();
  const units: Units = useStored(UNITS) === "inch" ? "inch" : "metric";
  const [chosen, setChosen] = useState<Units>(units);
  const mayEdit = session.role === "owner" || session.role === "planner";
  useEffect(() => {
    if (!kind) document.title = "Shelf · Noble Anvil";
  }, [kind]);
  if (shelf.isError)
    return (
      <Blank>
        <p>The server does not answer.</p>
        <Button onPress={() => shelf.refetch()}>Try again</Button>
      </Blank>
    );
  if (!shelf.data) return <Blank>Opening the shelf …</Blank>;
  const here = shelf.data.find((k) => k.kind === kind);
  return (
    <Page>
      <AppHeader
        title="Shelf"
        tools={
          <>
            <Segments
              label="Units"
              value={chosen}
              options={[
                { value: "metric", label: "mm" },
                { value: "inch", label: "inch" },
              ]}
              onChange={(value) => {
                const next = value === "inch" ? "inch" : "metric";
                setChosen(next);
                writeStored(UNITS, next);
              }}
            />
            {tools}
          </>
        }
      />
      <Body>
        <Rail aria-label="Shelf">
          {shelf.data.map((k) => (
            <Kind key={k.kind} kind={k} mayEdit={mayEdit} />
          ))}
        </Rail>
        {here && itemKey !== undefined ? (
          <ItemPage
            // What is typed belongs to one item in one unit system.
            key={`${here.kind} ${itemKey} ${chosen}`}
            kind={here.kind as KindName}
            itemKey={itemKey === "new" ? null : itemKey}
            units={chosen}
          />
        ) : here ? (
          <FilePanel key={here.kind} kind={here.kind} title={here.title} mayEdit={mayEdit} />
        ) : (
          <Start>
            <h2>The shelf</h2>
            <p>
              Machines, chucks, jaws, rings and materials with the figures that every plan rests on. Choose
              one to see each figure, what it means, and where on the maker’s data sheet it is found.
            </p>
            <p>
              A change shows first which plans it moves and by how much. Figures marked typical are starting
              values: replace them with your own, or say that they are yours.
            </p>
          </Start>
        )}
      </Body>
    </Page>
  );
}
