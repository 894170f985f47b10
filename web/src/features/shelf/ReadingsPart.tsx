import styled from "styled-components";
import type { Units } from "../../api/client";
import { seldom } from "../../shared/ui/seldom";
import { face, space, type } from "../../shared/ui/theme";
import { isRead, useReadings } from "./queries";

// Charts and what draws them are loaded when the first one is looked at.
const ReadingsChart = seldom(() => import("./ReadingsChart").then((m) => m.ReadingsChart), null);

const Part = styled.section`
  margin-bottom: ${space(6)};
  > div {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(18rem, 1fr));
    gap: ${space(4)};
  }
  h3 {
    margin-bottom: ${space(1)};
    font: 600 ${type.label} ${face.narrow};
  }
`;

type Props = { kind: string; itemKey: string; units: Units };

/** What was read at cards with this item, beside what was predicted: a small chart each. */
export function ReadingsPart({ kind, itemKey, units }: Props) {
  const { data } = useReadings(kind, itemKey, units);
  if (!isRead(kind) || !data || data.length === 0) return null;
  return (
    <Part aria-label="Read at the machine">
      <h2>Read at the machine</h2>
      <div>
        {data.map((of) => (
          <figure key={of.kind}>
            <h3>{of.title}</h3>
            <ReadingsChart of={of} />
          </figure>
        ))}
      </div>
    </Part>
  );
}
