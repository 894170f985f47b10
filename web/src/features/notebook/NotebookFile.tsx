import { FileLook } from "../../shared/ui/FileLook";
import { useLookAtNotebookFile, useNotebookFile } from "./queries";

/** The notebook out of and into a CSV file; every line is answered before anything is kept. */
export function NotebookFile({ mayEdit }: { mayEdit: boolean }) {
  const take = useNotebookFile();
  const looked = useLookAtNotebookFile();
  return (
    <FileLook
      save={
        <a href="/api/notebook/file" download="notebook.csv">
          Save the notebook as CSV
        </a>
      }
      mayEdit={mayEdit}
      looked={looked}
      taken={take}
      onKeep={(text, keep) => take.mutate({ text, keep })}
      hasNew={({ lines }) => lines.some((l) => l.outcome === "new")}
      words={({ kept, lines, bad }) => {
        const fresh = lines.filter((l) => l.outcome === "new").length;
        return kept > 0
          ? `${kept} written down.`
          : `${lines.length} lines: ${fresh} new, ${bad} cannot be taken.`;
      }}
      lines={({ lines }) => (
        <ul>
          {lines
            .filter((l) => l.outcome === "bad")
            .map((l) => (
              <li key={l.line}>
                line {l.line}, {l.name}: {l.messages.join(" ")}
              </li>
            ))}
        </ul>
      )}
    />
  );
}
