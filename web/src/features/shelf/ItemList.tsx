import { Input, SearchField } from "react-aria-components";
import { Link, NavLink } from "react-router";
import styled from "styled-components";
import type { ShelfKind } from "../../api/client";
import { Tag } from "../../shared/ui/Tag";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { counted } from "../../shared/words";

const Side = styled.section`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  border-right: ${size.line} solid ${colour("hairline")};
  @media ${fold.phone} {
    border-right: 0;
    &[data-aside] > :last-child {
      display: none;
    }
  }
`;

const Top = styled.div`
  display: grid;
  gap: ${space(2)};
  padding: ${space(3)} ${space(3)} ${space(2)};
  border-bottom: ${size.line} solid ${colour("hairline")};
  input {
    width: 100%;
    min-height: 34px;
    padding: 0 ${space(2)};
    background: ${colour("card")};
    border: 0;
    border-bottom: ${size.thick} solid ${colour("act")};
    border-radius: 0;
  }
  input::placeholder {
    color: ${colour("soft")};
    font-family: ${face.narrow};
  }
  p {
    display: flex;
    justify-content: space-between;
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  [data-back] {
    display: none;
  }
  @media ${fold.tablet} {
    input {
      min-height: ${size.touch};
    }
  }
  @media ${fold.phone} {
    [data-back] {
      display: inline;
    }
  }
`;

const Items = styled.div`
  overflow: auto;
  li a {
    display: block;
    padding: ${space(1.5)} ${space(3)};
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
  small,
  > p {
    display: block;
    font: 400 ${type.small}/1.25 ${face.narrow};
    color: ${colour("soft")};
  }
  > p {
    padding: ${space(2)} ${space(3)};
  }
  @media ${fold.tablet} {
    li a {
      min-height: ${size.touch};
    }
  }
`;

/** More than anybody reads through: the rest is found by a word. */
export const SHOWN = 200;

/** The items that have every one of the words, in their name or their line. */
export function found(items: ShelfKind["items"], words: string): ShelfKind["items"] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  if (wanted.length === 0) return items;
  return items.filter((i) => {
    const said = `${i.name} ${i.line}`.toLowerCase();
    return wanted.every((w) => said.includes(w));
  });
}

function taken(runs: number, sides: number): string {
  if (runs === 0) return "";
  return ` · ${counted(runs, "plan")}${sides > runs ? `, ${counted(sides, "side")}` : ""}`;
}

type Props = {
  kind: ShelfKind;
  words: string;
  onWords: (words: string) => void;
  mayEdit: boolean;
  isAside: boolean;
};

/** The items of a kind, fewer with every word that is typed; aside of one that is open. */
export function ItemList({ kind, words, onWords, mayEdit, isAside }: Props) {
  const all = found(kind.items, words);
  const shown = all.slice(0, SHOWN);
  return (
    <Side aria-label={kind.title} data-aside={isAside || undefined}>
      <Top>
        <SearchField aria-label={`Find in ${kind.title.toLowerCase()}`} value={words} onChange={onWords}>
          <Input placeholder={`Find in ${kind.title.toLowerCase()}`} />
        </SearchField>
        <p>
          <Link to={`/shelf/${kind.kind}`} data-back="">
            {kind.title}
          </Link>
          {mayEdit && (
            <NavLink to={`/shelf/${kind.kind}/new`} aria-label={`Put in a ${kind.noun}`}>
              put in
            </NavLink>
          )}
          <NavLink to={`/shelf/${kind.kind}`} end aria-label={`${kind.title} as a file`}>
            file
          </NavLink>
        </p>
      </Top>
      <Items>
        <ul>
          {shown.map((i) => (
            <li key={i.key}>
              <NavLink to={`/shelf/${kind.kind}/${i.key}`}>
                {i.name} {i.typical > 0 && <Tag>{i.typical} typical</Tag>}
                <small>
                  {i.line}
                  {taken(i.runs, i.sides)}
                </small>
              </NavLink>
            </li>
          ))}
        </ul>
        {all.length === 0 && <p>{words.trim() ? "None has all of these words." : `No ${kind.noun} yet.`}</p>}
        {all.length > SHOWN && (
          <p role="status">
            {SHOWN} of {all.length}: type a word to find the rest.
          </p>
        )}
      </Items>
    </Side>
  );
}
