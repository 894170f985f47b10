import { type ReactNode, useEffect, useState } from "react";
import { Checkbox } from "react-aria-components";
import { Link } from "react-router";
import styled from "styled-components";
import { type Practice, type Session, said } from "../../api/client";
import { cardsOnPhone } from "../../shared/ui/cards";
import { AppHeader, Blank } from "../../shared/ui/Page";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { moment } from "../../shared/words";
import { Sheet } from "./ExerciseScreen";
import { useHide, usePractice, useRunsToPractise, useWhoPractised } from "./queries";

const First = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(3)} ${space(5)};
  align-items: center;
  margin-bottom: ${space(4)};
  > p {
    flex: 1 1 24rem;
    color: ${colour("soft")};
  }
`;

const Go = styled(Link)`
  padding: ${space(2)} ${space(5)};
  background: ${colour("act")};
  color: ${colour("card")};
  font-weight: 600;
  text-decoration: none;
  border-radius: ${size.radius};
`;

const Table = styled.table`
  width: 100%;
  margin-bottom: ${space(6)};
  border-collapse: collapse;
  th {
    text-align: left;
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  td,
  th {
    padding: ${space(1.5)} ${space(3)} ${space(1.5)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  tbody th {
    padding-top: ${space(3)};
    font-weight: 600;
  }
  td[data-due] {
    font-weight: 600;
    color: ${colour("act")};
  }
  td[data-danger] {
    color: ${colour("stop")};
  }
  ${cardsOnPhone}
`;

const Work = styled.section`
  margin-bottom: ${space(5)};
  h2 {
    font-size: ${type.title};
    font-weight: 600;
  }
  ul {
    display: flex;
    flex-wrap: wrap;
    gap: ${space(1)} ${space(5)};
    padding: 0;
    list-style: none;
  }
`;

const Hide = styled(Checkbox)`
  display: inline-flex;
  gap: ${space(2)};
  align-items: center;
  cursor: pointer;
  &::before {
    content: "";
    width: 18px;
    height: 18px;
    border: ${size.thick} solid ${colour("act")};
  }
  &[data-selected]::before {
    content: "✓";
    line-height: 16px;
    text-align: center;
    background: ${colour("act")};
    color: ${colour("card")};
  }
`;

type Subject = Practice["subjects"][number];
const anySheet = () => Math.floor(Math.random() * 999_999);

function dueWords(s: Subject): string {
  if (s.due === null) return "not yet practised";
  return s.is_due ? "due now" : `due ${moment(s.due)}`;
}

/** Subjects in the order of the work: how far one is, what is due again, and the way to practise. */
export function PracticeScreen({ session, tools }: { session: Session; tools: ReactNode }) {
  const { data, error } = usePractice();
  const hide = useHide();
  // Each print is another sheet: its number stands on it.
  const [sheet, setSheet] = useState(anySheet);
  const isOwner = session.role === "owner";
  useEffect(() => {
    document.title = "Practice · Noble Anvil";
  }, []);
  if (error) return <Blank>{said(error)}</Blank>;
  if (!data) return <Blank>Opening practice …</Blank>;
  const due = data.subjects.filter((s) => s.is_due).length;
  const next = data.subjects.find((s) => s.kind === data.next);
  return (
    <>
      <AppHeader title="Practice" tools={tools} />
      <Sheet>
        <First>
          <Go to={`/practice/${data.next}`}>
            {due > 0 ? "What is due" : "Begin"}: {next?.title}
          </Go>
          <p>
            {due > 0
              ? `${due === 1 ? "One subject is" : `${due} subjects are`} due again.`
              : "Nothing is due: take something new, or what you like."}{" "}
            No part is scrapped here: every answer is computed, and says why.
          </p>
          <Link to="/practice/apprentice">The apprentice’s bench</Link>
          <a
            href={`/api/practice/sheet.pdf?seed=${sheet}`}
            target="_blank"
            rel="noreferrer"
            onClick={() => setTimeout(() => setSheet(anySheet))}
          >
            Ten exercises on paper
          </a>
        </First>
        <Table>
          <thead>
            <tr>
              <th>subject</th>
              <th>level</th>
              <th>answers</th>
              <th>right</th>
              <th>dangerous</th>
              <th>again</th>
            </tr>
          </thead>
          {data.groups.map(([key, title]) => (
            <tbody key={key}>
              <tr>
                <th colSpan={6}>{title}</th>
              </tr>
              {data.subjects
                .filter((s) => s.group === key)
                .map((s) => (
                  <tr key={s.kind}>
                    <td data-head="subject">
                      <Link to={`/practice/${s.kind}`}>{s.title}</Link>
                    </td>
                    <td data-head="level">
                      {s.level} of {s.levels}
                    </td>
                    <td data-head="answers">{s.answers || ""}</td>
                    <td data-head="right">{s.answers ? s.right : ""}</td>
                    <td data-head="dangerous" data-danger={s.dangerous > 0 || undefined}>
                      {s.dangerous || ""}
                    </td>
                    <td data-head="again" data-due={s.is_due || undefined}>
                      {dueWords(s)}
                    </td>
                  </tr>
                ))}
            </tbody>
          ))}
        </Table>
        <FromWork />
        <p>
          <Hide isSelected={data.hidden} onChange={(hidden) => hide.mutate(hidden)}>
            Hide my progress from the owner
          </Hide>
        </p>
        {isOwner && <People />}
      </Sheet>
    </>
  );
}

/** Real plans, whose moments are exercises with the shop's own numbers. */
function FromWork() {
  const { data } = useRunsToPractise();
  if (!data || data.rows.length === 0) return null;
  return (
    <Work aria-label="From real work">
      <h2>From real work</h2>
      <p>What would you set here? The moments of a plan, with the shop’s own numbers.</p>
      <ul>
        {data.rows.map((r) => (
          <li key={r.id}>
            <Link to={`/practice/from/${r.id}`}>
              {r.drawing_number} {r.name}
            </Link>
          </li>
        ))}
      </ul>
    </Work>
  );
}

/** Who has practised what; what is hidden shows as hidden. */
function People() {
  const { data } = useWhoPractised(true);
  if (!data) return null;
  return (
    <section aria-label="Who has practised">
      <h2>Who has practised</h2>
      <Table>
        <thead>
          <tr>
            <th>who</th>
            <th>subjects</th>
            <th>answers</th>
            <th>right</th>
            <th>dangerous</th>
            <th>last</th>
          </tr>
        </thead>
        <tbody>
          {data.map((p) => (
            <tr key={p.name}>
              <td data-head="who">
                {p.name}, {p.role}
              </td>
              {p.hidden ? (
                <td colSpan={5}>hidden</td>
              ) : (
                <>
                  <td data-head="subjects">{Object.keys(p.subjects).length}</td>
                  <td data-head="answers">{p.answers}</td>
                  <td data-head="right">{p.right}</td>
                  <td data-head="dangerous" data-danger={p.dangerous > 0 || undefined}>
                    {p.dangerous}
                  </td>
                  <td data-head="last">{p.last ? moment(p.last) : "never"}</td>
                </>
              )}
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  );
}
