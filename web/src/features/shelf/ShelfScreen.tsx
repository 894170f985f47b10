import { type ReactNode, useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import styled from "styled-components";
import type { KindName, Session, Units } from "../../api/client";
import { useStored, writeStored } from "../../shared/stored";
import { Button } from "../../shared/ui/Button";
import { AppHeader, Blank } from "../../shared/ui/Page";
import { Segments } from "../../shared/ui/Segments";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { FilePanel } from "./FilePanel";
import { found, ItemList } from "./ItemList";
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
  grid-template-columns: 9rem 15rem minmax(0, 1fr);
  min-height: 0;
  @media ${fold.tablet} {
    grid-template-columns: 15rem minmax(0, 1fr);
    grid-template-rows: auto auto;
  }
  @media ${fold.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const Kinds = styled.nav`
  padding: ${space(3)} 0;
  border-right: ${size.line} solid ${colour("hairline")};
  overflow: auto;
  li a {
    display: flex;
    justify-content: space-between;
    gap: ${space(2)};
    padding: ${space(1.5)} ${space(3)} ${space(1.5)} ${space(4.5)};
    color: ${colour("ink")};
    text-decoration: none;
  }
  li a:hover {
    color: ${colour("act")};
  }
  li a[data-here] {
    background: ${colour("card")};
    box-shadow: inset 3px 0 0 ${colour("act")};
  }
  li a:focus-visible {
    outline-offset: -2px;
  }
  li span {
    font: 400 ${type.small}/1.6 ${face.narrow};
    color: ${colour("soft")};
  }
  @media ${fold.tablet} {
    grid-column: 1 / -1;
    padding: 0;
    border-right: 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
    ul {
      display: flex;
      flex-wrap: wrap;
    }
    li a {
      align-items: center;
      min-height: ${size.touch};
      padding: 0 ${space(3)};
    }
    li a[data-here] {
      box-shadow: inset 0 -3px 0 ${colour("act")};
    }
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

type Props = { session: Session; tools: ReactNode };

/** What the shop has: its kinds, the items of one, and the one chosen. */
export function ShelfScreen({ session, tools }: Props) {
  const { kind, itemKey } = useParams();
  const shelf = useShelf();
  const units: Units = useStored(UNITS) === "inch" ? "inch" : "metric";
  const [chosen, setChosen] = useState<Units>(units);
  const [words, setWords] = useState("");
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
  const listed = here ?? shelf.data[0];
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
        <Kinds aria-label="Shelf">
          <ul>
            {shelf.data.map((k) => (
              <li key={k.kind}>
                <Link
                  to={`/shelf/${k.kind}`}
                  data-here={k === listed || undefined}
                  aria-current={k === listed || undefined}
                >
                  {k.title} <span>{words.trim() ? found(k.items, words).length : k.items.length}</span>
                </Link>
              </li>
            ))}
          </ul>
        </Kinds>
        {listed && (
          <ItemList
            kind={listed}
            words={words}
            onWords={setWords}
            mayEdit={mayEdit}
            isAside={itemKey !== undefined}
          />
        )}
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
