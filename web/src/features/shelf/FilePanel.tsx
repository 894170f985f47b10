import { useState } from "react";
import styled from "styled-components";
import { fieldErrors, type KindName, said } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { FileButton } from "../../shared/ui/FileButton";
import { Told } from "../../shared/ui/Page";
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

const Actions = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(4)};
  align-items: center;
  margin-bottom: ${space(4)};
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
  const [text, setText] = useState<string | null>(null);
  const looked = useLookAtFile(kind);
  const take = useTakeFile();
  const keep = (how: "all" | "good") => text !== null && take.mutate({ kind, text, keep: how });
  const answer = take.data ?? looked.data;
  const wrong = take.error ?? looked.error;
  const good = answer ? answer.lines.length - answer.bad : 0;
  return (
    <Panel>
      <h2>{title} as a file</h2>
      <p>
        CSV, a line an item, columns named as the fields; figures in mm, N, bar, kg, rpm, kW, N·m, or with
        their unit written behind them. A line whose key or name is on the shelf changes that item.
      </p>
      <Actions>
        <a href={`/api/shelf/${kind}/file`} download={`${kind}.csv`}>
          Save {title.toLowerCase()} as CSV
        </a>
        {mayEdit && (
          <FileButton
            label="Look at a file …"
            types={[".csv", "text/csv", "text/plain"]}
            onText={(read) => {
              setText(read);
              take.reset();
              looked.mutate(read);
            }}
          />
        )}
      </Actions>
      {looked.isPending && <Told role="status">Looking at its lines …</Told>}
      {wrong && <Told role="alert">{fieldErrors(wrong).text ?? said(wrong)}</Told>}
      {answer && text !== null && (
        <>
          <Told role="status">
            {answer.kept > 0
              ? `${answer.kept} kept.`
              : `${answer.lines.length} lines: ${good} can be taken, ${answer.bad} cannot.`}
          </Told>
          {answer.kept === 0 && answer.lines.some((l) => l.outcome === "new" || l.outcome === "changed") && (
            <Actions>
              {answer.bad === 0 ? (
                <Button onPress={() => keep("all")}>Keep them</Button>
              ) : (
                <Button onPress={() => keep("good")}>Keep the good lines only</Button>
              )}
              <TextButton
                onPress={() => {
                  setText(null);
                  take.reset();
                  looked.reset();
                }}
              >
                leave it
              </TextButton>
            </Actions>
          )}
          <Lines>
            <thead>
              <tr>
                <th>line</th>
                <th>name</th>
                <th>becomes</th>
              </tr>
            </thead>
            <tbody>
              {answer.lines.map((l) => (
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
        </>
      )}
    </Panel>
  );
}
