import { Link } from "react-router";
import styled from "styled-components";
import { reach } from "../../shared/ui/reach";
import { colour, face, fold, space, type } from "../../shared/ui/theme";

const Sheets = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(1)} ${space(4)};
  margin-top: ${space(4)};
  font: 400 ${type.label} ${face.narrow};
  color: ${colour("soft")};
  a {
    ${reach}
  }
  @media ${fold.tablet} {
    row-gap: ${space(6)};
    padding-block: ${space(3)};
  }
`;

/** The route as files for a spreadsheet, and the way to the board. */
export function RouteSheets({ runId }: { runId: number }) {
  return (
    <Sheets>
      For a spreadsheet:
      <a href={`/api/runs/${runId}/route-tools.csv`} download>
        save the tools by station
      </a>
      <a href={`/api/runs/${runId}/route-times.csv`} download>
        save the time of every operation
      </a>
      <Link to="/board">When it is on the machine: the board</Link>
    </Sheets>
  );
}
