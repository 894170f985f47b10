import styled from "styled-components";
import type { CardStep } from "../../api/client";
import { useContact } from "../../api/contact";
import { Button } from "../../shared/ui/Button";
import { NoteBox } from "../../shared/ui/NoteBox";
import { size, space, type } from "../../shared/ui/theme";
import { type UnsentWork, unsentWork } from "../../shared/unsentWork";
import { moment } from "../../shared/words";

const Box = styled.div`
  display: grid;
  gap: ${space(2)};
  padding: 0 ${space(5)} ${space(2)};
  > div {
    font-size: ${type.run};
  }
  button {
    min-height: ${size.touch};
    margin-left: ${space(2)};
    font-size: ${type.run};
  }
`;

type Props = {
  steps: readonly CardStep[];
  waits: readonly UnsentWork[];
  isKept: "kept" | "not yet" | "never";
};

/** What of a card waits on this tablet, and what somebody must decide before it goes. */
export function CardWaits({ steps, waits, isKept }: Props) {
  const { away, since } = useContact();
  const titleOf = (work: UnsentWork) => steps.find((s) => s.id === work.step)?.title ?? work.step;
  const unjudged = waits.filter((w) => !("state" in w.doing) && !w.refused && !w.asked);
  const stuck = waits.filter((w) => w.refused ?? w.asked);
  if (!away && stuck.length === 0) return null;
  return (
    <Box role="status">
      {away && (
        <NoteBox level="caution">
          The server does not answer.{" "}
          {isKept === "kept"
            ? `This is the card as this tablet keeps it${since ? ` since ${moment(new Date(since).toISOString())}` : ""}. `
            : "Leave this page open. "}
          {waits.length === 0
            ? "What you do waits here, and is sent once."
            : `${waits.length === 1 ? "One step waits" : `${waits.length} steps wait`} here, sent once as soon as it does.`}
        </NoteBox>
      )}
      {unjudged.length > 0 && (
        <NoteBox level="stop">
          Nobody has judged yet what you read: {unjudged.map((w) => titleOf(w).toLowerCase()).join(", ")}. Do
          not cut before the server has.
        </NoteBox>
      )}
      {stuck.map((work) => (
        <NoteBox key={work.key} level={work.asked ? "caution" : "stop"}>
          {titleOf(work)}, {moment(work.at)}: {work.asked ?? work.refused}
          {work.asked && (
            <Button
              onPress={() =>
                unsentWork.note(work.key, {
                  asked: "",
                  doing: { ...work.doing, sure: true } as UnsentWork["doing"],
                })
              }
            >
              It is right: keep it
            </Button>
          )}
          <Button onPress={() => unsentWork.drop(work.key)}>Throw it away</Button>
        </NoteBox>
      ))}
    </Box>
  );
}
