import styled from "styled-components";
import type { PlanTable } from "../../api/client";
import { TextButton } from "../../shared/ui/Button";
import { cardsOnPhone } from "../../shared/ui/cards";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";

const Frame = styled.div`
  margin-top: ${space(4)};
  overflow-x: auto;
  h3 {
    margin-bottom: ${space(1)};
    font: 600 ${type.label} ${face.narrow};
  }
  table {
    width: 100%;
    border-collapse: collapse;
    line-height: 1.25;
  }
  th,
  td {
    padding: ${space(1)} ${space(2)} ${space(1)} ${space(1)};
    text-align: left;
    vertical-align: top;
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  thead th {
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  tbody th {
    font-weight: 400;
  }
  tr[data-chosen] {
    background: ${colour("card")};
    box-shadow: inset 3px 0 0 ${colour("act")};
  }
  tr[data-chosen] th {
    padding-left: ${space(2)};
    font-weight: 600;
  }
  small {
    display: block;
    font: 400 ${type.small}/1.2 ${face.narrow};
    color: ${colour("stop")};
  }
  /* What is taken there is taken by a finger. */
  @media ${fold.tablet} {
    td {
      padding-block: ${space(3)};
    }
  }
  @media ${fold.phone} {
    overflow-x: visible;
  }
  ${cardsOnPhone}
`;

type Value = string | number | boolean;
type Props = { table: PlanTable; onTake?: (path: string, value: Value) => void };

/** Things side by side; one of them is in force, another can be taken. */
export function CompareTable({ table, onTake }: Props) {
  const takable = table.rows.some((r) => r.takable);
  return (
    <Frame>
      <h3 id={`table-${table.name}`}>{table.title}</h3>
      <table aria-labelledby={`table-${table.name}`}>
        <thead>
          <tr>
            {table.head.map((h) => (
              <th key={h} scope="col">
                {h}
              </th>
            ))}
            {takable && <td />}
          </tr>
        </thead>
        <tbody>
          {table.rows.map((row, index) => (
            // Rows of one label ("because") stand more than once.
            <tr key={`${row.label} ${index}`} data-chosen={row.chosen || undefined}>
              <th scope="row">
                {row.label}
                {row.why_not && <small>{row.why_not}</small>}
              </th>
              {row.cells.map((cell, i) => (
                <td key={table.head[i + 1] ?? i} data-head={table.head[i + 1] || undefined}>
                  {cell}
                </td>
              ))}
              {takable && (
                <td>
                  {row.chosen && "in force"}
                  {row.takable && row.path !== null && (
                    <TextButton
                      aria-label={`take ${row.label}`}
                      isDisabled={!onTake}
                      onPress={() => onTake?.(row.path as string, row.value as Value)}
                    >
                      take
                    </TextButton>
                  )}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </Frame>
  );
}
