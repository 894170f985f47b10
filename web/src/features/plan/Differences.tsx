import styled from "styled-components";
import type { Units } from "../../api/client";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { useDifferences } from "./releaseQueries";

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th,
  td {
    padding: ${space(1.5)} ${space(2)} ${space(1.5)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
    text-align: left;
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  thead th {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  tbody th {
    font-weight: 400;
  }
  td:last-child {
    font-weight: 600;
  }
`;

type Props = { runId: number; number: number; other: number | null; units: Units };

/** Every figure that differs between two releases, or a release and the draft: before and after. */
export function Differences({ runId, number, other, units }: Props) {
  const { data, isError } = useDifferences(runId, number, other, units);
  if (isError) return <p>The comparison is not answered just now.</p>;
  if (!data) return <p>Comparing …</p>;
  const then = other === null ? "the draft" : `release ${other}`;
  if (data.rows.length === 0)
    return (
      <p>
        No figure differs between release {number} and {then}.
      </p>
    );
  return (
    <Table aria-label={`Release ${number} and ${then}`}>
      <thead>
        <tr>
          <th scope="col">stop</th>
          <th scope="col">figure</th>
          <th scope="col">release {number}</th>
          <th scope="col">{then}</th>
        </tr>
      </thead>
      <tbody>
        {data.rows.map((row) => (
          <tr key={`${row.stop} ${row.label}`}>
            <td>{row.stop}</td>
            <th scope="row">{row.label}</th>
            <td>{row.before}</td>
            <td>{row.after}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
