import styled from "styled-components";
import type { KindName } from "../../api/client";
import { FileLook } from "../../shared/ui/FileLook";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { useLookAtFile, useTakeFile } from "./queries";

const Panel = styled.div`
  padding: ${space(4)} ${space(5)} ${space(12)};
  max-width: 860px;
  overflow: auto;
  h2 {
    font-size: ${type.run};
    font-weight: 600;
  }
  > p {
    margin: ${space(2)} 0 ${space(4)};
    color: ${colour("soft")};
  }
`;

const Lines = styled.table`
  width: 100%;
  margin: ${space(4)} 0;
  border-collapse: collapse;
  th,
  td {
    padding: ${space(1.5)} ${space(2)};
    border-bottom: ${size.line} solid ${colour("hairline")};
    text-align: left;
    vertical-align: top;
  }
  th {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  [data-outcome="bad"] td {
    color: ${colour("stop")};
  }
`;

const WORDS = { new: "new", changed: "changed", same: "as it is", bad: "not taken" } as const;

/** A kind of the shelf out of and into a CSV file; every line is answered before anything is kept. */
export function FilePanel({ kind, title, mayEdit }: { kind: KindName; title: string; mayEdit: boolean }) {
  const looked = useLookAtFile(kind);
  const take = useTakeFile();
  return (
    <Panel>
      <h2>{title} as a file</h2>
      <p>
        CSV, a line an item, columns named as the fields; figures in mm, N, bar, kg, rpm, kW, N·m, or with
        their unit written behind them. A line whose key or name is on the shelf changes that item.
      </p>
      <FileLook
        save={
          <a href={`/api/shelf/${kind}/file`} download={`${kind}.csv`}>
            Save {title.toLowerCase()} as CSV
          </a>
        }
        mayEdit={mayEdit}
        looked={looked}
        taken={take}
        onKeep={(text, keep) => take.mutate({ kind, text, keep })}
        hasNew={({ lines }) => lines.some((l) => l.outcome === "new" || l.outcome === "changed")}
        words={({ kept, lines, bad }) =>
          kept > 0
            ? `${kept} kept.`
            : `${lines.length} lines: ${lines.length - bad} can be taken, ${bad} cannot.`
        }
        lines={({ lines }) => (
          <Lines>
            <thead>
              <tr>
                <th>line</th>
                <th>name</th>
                <th>becomes</th>
              </tr>
            </thead>
            <tbody>
              {lines.map((l) => (
                <tr key={l.line} data-outcome={l.outcome}>
                  <td>{l.line}</td>
                  <td>{l.name}</td>
                  <td>
                    {WORDS[l.outcome]}
                    {l.messages.map((m) => (
                      <div key={m}>{m}</div>
                    ))}
                  </td>
                </tr>
              ))}
            </tbody>
          </Lines>
        )}
      />
    </Panel>
  );
}
