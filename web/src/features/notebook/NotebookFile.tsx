import { useState } from "react";
import { fieldErrors, said } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { FileButton } from "../../shared/ui/FileButton";
import { Told } from "../../shared/ui/Page";
import { Bar } from "./Bar";
import { useLookAtNotebookFile, useNotebookFile } from "./queries";

/** The file: read, every line answered, then kept as the person says. */
export function NotebookFile({ mayEdit }: { mayEdit: boolean }) {
  const [text, setText] = useState<string | null>(null);
  const take = useNotebookFile();
  const looked = useLookAtNotebookFile();
  const answer = take.data ?? looked.data;
  const wrong = take.error ?? looked.error;
  const fresh = answer?.lines.filter((l) => l.outcome === "new").length ?? 0;
  return (
    <>
      <Bar>
        <a href="/api/notebook/file" download="notebook.csv">
          Save the notebook as CSV
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
      </Bar>
      {looked.isPending && <Told role="status">Looking at its lines …</Told>}
      {wrong && <Told role="alert">{fieldErrors(wrong).text ?? said(wrong)}</Told>}
      {answer && text !== null && (
        <>
          <Told role="status">
            {answer.kept > 0
              ? `${answer.kept} written down.`
              : `${answer.lines.length} lines: ${fresh} new, ${answer.bad} cannot be taken.`}
          </Told>
          <ul>
            {answer.lines
              .filter((l) => l.outcome === "bad")
              .map((l) => (
                <li key={l.line}>
                  line {l.line}, {l.name}: {l.messages.join(" ")}
                </li>
              ))}
          </ul>
          {answer.kept === 0 && fresh > 0 && (
            <Bar>
              <Button onPress={() => take.mutate({ text, keep: answer.bad ? "good" : "all" })}>
                {answer.bad ? "Keep the good lines only" : "Keep them"}
              </Button>
              <TextButton
                onPress={() => {
                  setText(null);
                  take.reset();
                  looked.reset();
                }}
              >
                leave it
              </TextButton>
            </Bar>
          )}
        </>
      )}
    </>
  );
}
