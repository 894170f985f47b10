import type { CardStep } from "../../api/client";
import { NoteBox } from "../../shared/ui/NoteBox";
import { moment } from "../../shared/words";
import type { Standing } from "./standing";

/** What a step was ticked with, and where it was read twice, or waits. */
export function StepDone({ step, standing }: { step: CardStep; standing: Standing }) {
  const mark = standing.of(step.id);
  const twice = standing.twice(step.id);
  const waits = standing.waits(step.id);
  return (
    <>
      {mark && (
        <p className="mark">
          {mark.state === "skipped" ? "Skipped" : "Done"} by {mark.by}, {moment(mark.at)}
          {mark.reason && `: ${mark.reason}`}
        </p>
      )}
      {waits && <p className="mark">Read {moment(waits.at)}; it waits on this tablet for the server.</p>}
      {twice.length > 0 && (
        <NoteBox level="caution">
          Read twice, neither knowing of the other:{" "}
          {twice.map((r) => `${r.shown} by ${r.by}, ${moment(r.at)}`).join("; ")}. Both are kept, the later
          one counts{mark ? "" : "; one of them says to stop, so read once more"}.
        </NoteBox>
      )}
    </>
  );
}
