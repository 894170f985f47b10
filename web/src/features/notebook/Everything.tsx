import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Units } from "../../api/client";
import { NoteBox } from "../../shared/ui/NoteBox";
import { Told } from "../../shared/ui/Page";
import { Segments } from "../../shared/ui/Segments";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { counted } from "../../shared/words";
import { type NotedKind, useEverything } from "./queries";

const WORDS: Record<Exclude<NotedKind, "">, string> = {
  lesson: "lesson",
  edge: "edge",
  reading: "reading",
  coolant: "coolant",
  gauge: "grip gauge",
  jaws: "jaws",
  cut: "cut",
};
const KINDS: { value: NotedKind; label: string }[] = [
  { value: "", label: "all" },
  ...Object.entries(WORDS).map(([value, label]) => ({ value: value as NotedKind, label })),
];

const Whole = styled.section`
  display: grid;
  gap: ${space(3)};
  justify-items: start;
  ol {
    display: grid;
    width: 100%;
  }
  li {
    display: grid;
    grid-template-columns: 7rem 6rem minmax(11rem, 18rem) minmax(0, 1fr) auto;
    gap: ${space(1)} ${space(4)};
    padding: ${space(1.5)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
    line-height: 1.3;
  }
  li > span {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  @media ${fold.tablet} {
    li {
      grid-template-columns: 6.5rem 5rem minmax(0, 1fr) auto;
    }
    li > p {
      grid-column: 1 / -1;
    }
  }
  @media ${fold.phone} {
    li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    li > * {
      grid-column: auto;
    }
    li > a,
    li > p {
      grid-column: 1 / -1;
    }
  }
`;

/** Everything that was noted at the machines, the newest first, each a way to where it stands. */
export function Everything({ find, units }: { find: string; units: Units }) {
  const [kind, setKind] = useState<NotedKind>("");
  const { data, isError } = useEverything({ find, kind, units });
  return (
    <Whole aria-label="Everything that was noted">
      <Segments
        label="Of which kind"
        value={kind}
        options={KINDS}
        onChange={(v) => setKind(v as NotedKind)}
      />
      {isError && <Told role="alert">The server does not answer.</Told>}
      {data?.due.map((words) => (
        <NoteBox key={words} level="caution">
          {words}
        </NoteBox>
      ))}
      {data && data.count === 0 && (
        <p>
          {find || kind
            ? "Nothing in the notebook has all of that. Take a word out."
            : "What is read at a card, what edges last, lessons, gauge runs and what happens to jaws stand here."}
        </p>
      )}
      {data && data.count > 0 && (
        <>
          <p role="status">
            {counted(data.count, "line")}
            {data.count > data.lines.length ? `, the newest ${data.lines.length} shown` : ""}.
          </p>
          <ol>
            {data.lines.map((l, i) => (
              <li key={`${l.kind} ${l.on} ${l.words} ${i}`}>
                <span>{l.on}</span>
                <span>{WORDS[l.kind]}</span>
                <Link to={l.href}>{l.of}</Link>
                <p>{l.words}</p>
                <span>{l.by}</span>
              </li>
            ))}
          </ol>
        </>
      )}
    </Whole>
  );
}
