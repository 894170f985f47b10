import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { said, type Units } from "../../api/client";
import { standingWords } from "../../shared/questions";
import { Button } from "../../shared/ui/Button";
import { NoteBox } from "../../shared/ui/NoteBox";
import { counted } from "../../shared/words";
import { makeFolder } from "./releaseQueries";

/** The whole folder of a run as one PDF: made at a press, then there to open. */
export function FolderButton({ runId, units }: { runId: number; units: Units }) {
  const [stands, setStands] = useState("");
  const made = useMutation({
    mutationFn: () => makeFolder(runId, units, (s) => setStands(standingWords(s))),
  });
  return (
    <div>
      {made.data ? (
        <a href={made.data.href}>
          Open the folder of release {made.data.release},{" "}
          {counted(Math.ceil(made.data.size / 1000), "kB", "kB")}
        </a>
      ) : (
        <Button isDisabled={made.isPending} onPress={() => made.mutate()}>
          {made.isPending ? `Making the folder … ${stands}` : "Make the folder as PDF"}
        </Button>
      )}
      {made.isError && <NoteBox level="stop">{said(made.error)}</NoteBox>}
    </div>
  );
}
