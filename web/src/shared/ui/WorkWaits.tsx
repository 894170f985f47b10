import styled from "styled-components";
import { useContact } from "../../api/contact";
import { isUnjudged, type UnsentWork, unsentWork } from "../unsentWork";
import { moment } from "../words";
import { Button } from "./Button";
import { NoteBox } from "./NoteBox";
import { size, space, type } from "./theme";

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
  /** What something that waits is called. */
  titleOf: (work: UnsentWork) => string;
  waits: readonly UnsentWork[];
  isKept: "kept" | "not yet" | "never";
};

/** What waits on this tablet, and what somebody must decide before it goes. */
export function WorkWaits({ titleOf, waits, isKept }: Props) {
  const { away, since } = useContact();
  const unjudged = waits.filter((w) => isUnjudged(w) && !w.refused && !w.asked);
  const stuck = waits.filter((w) => w.refused ?? w.asked);
  if (!away && stuck.length === 0) return null;
  return (
    <Box role="status">
      {away && (
        <NoteBox level="caution">
          The server does not answer.{" "}
          {isKept === "kept"
            ? `This is what this tablet keeps${since ? ` since ${moment(new Date(since).toISOString())}` : ""}. `
            : "Leave this page open. "}
          {waits.length === 0
            ? "What you do waits here, and is sent once."
            : `${
                waits.length === 1 ? "One step waits" : `${waits.length} steps wait`
              } here, sent once as soon as it does.`}
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
            <Button onPress={() => unsentWork.note(work.key, { asked: "", doing: saidSure(work.doing) })}>
              It is right: keep it
            </Button>
          )}
          <Button onPress={() => unsentWork.drop(work.key)}>Throw it away</Button>
        </NoteBox>
      ))}
    </Box>
  );
}

function saidSure(doing: UnsentWork["doing"]): UnsentWork["doing"] {
  const sure = "to" in doing ? { ...doing, body: { ...doing.body, sure: true } } : { ...doing, sure: true };
  return sure as UnsentWork["doing"];
}
