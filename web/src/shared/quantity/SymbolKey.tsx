import styled from "styled-components";
import { colour, face, space, type } from "../ui/theme";
import { dress } from "./dress";

const Key = styled.dl`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
  gap: ${space(0.5)} ${space(5)};
  margin-top: ${space(4)};
  font: 400 ${type.label}/1.35 ${face.narrow};
  div {
    display: flex;
    gap: ${space(2)};
  }
  dt {
    flex: 0 0 3.5rem;
    font-family: ${face.plain};
  }
  dd {
    color: ${colour("soft")};
  }
`;

type Explained = { label: string; symbols: Readonly<Record<string, string>> };
type Entry = { symbol: string; meaning: string };

/** What the symbols of all lines stand for; where one means another thing in a later line, with that line's name. */
export function keyOf(steps: readonly Explained[]): Entry[] {
  const known = new Map<string, Entry[]>();
  for (const { label, symbols } of steps) {
    for (const [symbol, meaning] of Object.entries(symbols)) {
      const told = known.get(symbol) ?? [];
      if (!meaning || told.some((e) => e.meaning === meaning)) continue;
      const where = told.length > 0 ? `, in “${label}”` : "";
      if (!told.some((e) => e.meaning.startsWith(`${meaning}, in “`)))
        known.set(symbol, [...told, { symbol, meaning: meaning + where }]);
    }
  }
  return [...known.values()].flat();
}

/** The key of the symbols of a working. */
export function SymbolKey({ steps }: { steps: readonly Explained[] }) {
  const entries = keyOf(steps);
  if (entries.length === 0) return null;
  return (
    <Key aria-label="What the symbols stand for">
      {entries.map(({ symbol, meaning }) => (
        <div key={`${symbol} ${meaning}`}>
          <dt>{dress(symbol)}</dt>
          <dd>{meaning}</dd>
        </div>
      ))}
    </Key>
  );
}
