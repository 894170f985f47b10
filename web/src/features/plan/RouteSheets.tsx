import { Block } from "./ProgramBlock";

/** The route as files for a spreadsheet. */
export function RouteSheets({ runId }: { runId: number }) {
  return (
    <Block aria-label="For a spreadsheet">
      <h2>For a spreadsheet</h2>
      <a href={`/api/runs/${runId}/route-tools.csv`} download>
        Save the tools by station
      </a>
      <p>
        <a href={`/api/runs/${runId}/route-times.csv`} download>
          Save the time of every operation
        </a>
      </p>
    </Block>
  );
}
