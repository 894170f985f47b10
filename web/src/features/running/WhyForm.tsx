import { useState } from "react";
import styled from "styled-components";
import { Entry } from "../../shared/ui/Entry";
import { space, type } from "../../shared/ui/theme";
import { Hand, Row, Soft, Wrong } from "./hand";

const Box = styled.section`
  display: grid;
  gap: ${space(3)};
  h2 {
    font-size: ${type.hand};
    font-weight: 600;
  }
`;

type Props = {
  title: string;
  /** Reasons that one press says; none: it is written. */
  reasons: readonly { key: string; words: string }[];
  wrong: string;
  onSay: (reason: string, note: string) => void;
  onBack: () => void;
};

/** Why something happened: one press, or a few words. */
export function WhyForm({ title, reasons, wrong, onSay, onBack }: Props) {
  const [note, setNote] = useState("");
  const [other, setOther] = useState(reasons.length === 0);
  return (
    <Box aria-label={title}>
      <h2>{title}</h2>
      {!other && (
        <Row role="group" aria-label="Why">
          {reasons.map((r) => (
            <Hand key={r.key} onClick={() => (r.key === "other" ? setOther(true) : onSay(r.key, ""))}>
              {r.words}
            </Hand>
          ))}
        </Row>
      )}
      {other && (
        <>
          <Entry label="Why, in a few words" value={note} onChange={setNote} maxLength={160} autoFocus />
          <Hand data-main disabled={note.trim() === ""} onClick={() => onSay("other", note)}>
            Keep it
          </Hand>
        </>
      )}
      {wrong && <Wrong role="alert">{wrong}</Wrong>}
      <Hand onClick={onBack}>back</Hand>
      <Soft>Nothing is kept before you say why.</Soft>
    </Box>
  );
}
