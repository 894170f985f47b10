import { type ReactNode, useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import styled from "styled-components";
import { type HistoryEntry, Refused, type Session, said } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { AppHeader, Blank, Told } from "../../shared/ui/Page";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { act } from "./acting";
import { useHistory, usePlan } from "./queries";

const Main = styled.main`
  max-width: 1000px;
  margin: 0 auto;
  padding: ${space(6)} ${space(4.5)} ${space(12)};
  h2 {
    font-size: ${type.run};
    font-weight: 600;
  }
  h2 + p {
    margin: ${space(1)} 0 ${space(4)};
    color: ${colour("soft")};
  }
  h3 {
    margin: ${space(5)} 0 ${space(1)};
    font: 600 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
`;

const Line = styled.li`
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr) 150px 136px;
  gap: ${space(0.5)} ${space(4)};
  align-items: baseline;
  padding: ${space(2)} ${space(1)};
  border-bottom: ${size.line} solid ${colour("hairline")};
  > span:first-child {
    color: ${colour("soft")};
    font: 400 ${type.label} ${face.narrow};
  }
  p {
    overflow-wrap: anywhere;
  }
  small {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
    white-space: nowrap;
  }
  > :last-child {
    display: flex;
    gap: ${space(4)};
    font: 400 ${type.label} ${face.narrow};
  }
  @media ${fold.phone} {
    grid-template-columns: 64px minmax(0, 1fr);
    small,
    > :last-child {
      grid-column: 2;
    }
  }
`;

const day = (at: string) =>
  new Date(at).toLocaleDateString("en-GB", {
    weekday: "long",
    day: "numeric",
    month: "long",
    year: "numeric",
  });
const clock = (at: string) =>
  new Date(at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });

function byDay(entries: readonly HistoryEntry[]): [string, HistoryEntry[]][] {
  const days = new Map<string, HistoryEntry[]>();
  for (const e of entries) days.set(day(e.at), [...(days.get(day(e.at)) ?? []), e]);
  return [...days];
}

type Props = { session: Session; tools: ReactNode };

/** What was changed in a plan, by whom and when; any earlier draft can be looked at and brought back. */
export function HistoryScreen({ session, tools }: Props) {
  const runId = Number(useParams().runId);
  const navigate = useNavigate();
  const first = usePlan(runId, "metric");
  const units = first.data?.plan.run.units ?? "metric";
  const history = useHistory(runId, units);
  const [wrong, setWrong] = useState("");
  const plan = first.data?.plan;
  useEffect(() => {
    document.title = `History ${plan?.run.drawing_number ?? ""} · Noble Anvil`;
  }, [plan]);
  const failed = first.error ?? history.error;
  if (failed)
    return (
      <Blank>
        <p>
          {failed instanceof Refused && failed.status === 404
            ? failed.message
            : "The server does not answer."}
        </p>
        <Link to="/">To the bench</Link>
      </Blank>
    );
  if (!plan || !history.data) return <Blank>Opening the history …</Blank>;
  const firstDraft = history.data.pages[0]?.first ?? 0;
  const entries = history.data.pages.flatMap((p) => p.entries);
  const mayRestore = (session.role === "owner" || session.role === "planner") && !plan.run.put_away;

  async function restore(revision: number) {
    try {
      const base = history.data?.pages[0]?.total ?? 0;
      await act(runId, { kind: "restore", revision, base }, units);
      void navigate(`/runs/${runId}`);
    } catch (error) {
      setWrong(said(error));
      void history.refetch();
    }
  }
  const links = (revision: number) => (
    <span>
      <Link to={`/runs/${runId}?at=${revision}`}>look at</Link>
      {mayRestore && revision !== plan.revision && (
        <TextButton onPress={() => void restore(revision)} aria-label={`bring back draft ${revision}`}>
          bring back
        </TextButton>
      )}
    </span>
  );
  return (
    <>
      <AppHeader title={`History of ${plan.run.name}`} tools={tools} />
      <Main>
        <h2>
          <Link to={`/runs/${runId}`}>{plan.run.name}</Link> {plan.run.drawing_number}: history
        </h2>
        <p>
          {plan.revision === 0
            ? "Nothing has been changed yet. Every edit will stand here as a sentence, with what it moved."
            : "The newest first. Bringing a draft back is an edit of its own: nothing that was done since is lost."}
        </p>
        {wrong && <Told role="alert">{wrong}</Told>}
        {byDay(entries).map(([title, rows]) => (
          <section key={title} aria-label={title}>
            <h3>{title}</h3>
            <ul>
              {rows.map((e) => (
                <Line key={e.revision} data-revision={e.revision}>
                  <span>draft {e.revision}</span>
                  <p>{e.text}</p>
                  <small>
                    {e.by}, {clock(e.at)}
                  </small>
                  {e.revision >= firstDraft && links(e.revision)}
                </Line>
              ))}
            </ul>
          </section>
        ))}
        {history.hasNextPage ? (
          <Button onPress={() => void history.fetchNextPage()}>Show what was before</Button>
        ) : (
          plan.revision > 0 && (
            <ul>
              <Line>
                <span>draft 0</span>
                <p>The run was put on the bench.</p>
                <small />
                {firstDraft === 0 && links(0)}
              </Line>
            </ul>
          )
        )}
      </Main>
    </>
  );
}
