import { type ReactNode, useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import styled from "styled-components";
import { Refused, type Session } from "../../api/client";
import { TextButton } from "../../shared/ui/Button";
import { AppHeader, Blank } from "../../shared/ui/Page";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { Differences } from "./Differences";
import { FolderButton } from "./FolderButton";
import { usePlan } from "./queries";
import { ReleaseForm } from "./ReleaseForm";
import { useReleases } from "./releaseQueries";

const Main = styled.main`
  max-width: 1000px;
  margin: 0 auto;
  padding: ${space(6)} ${space(4.5)} ${space(12)};
  display: grid;
  gap: ${space(4)};
  h2 {
    font-size: ${type.run};
    font-weight: 600;
  }
  h3 {
    margin-top: ${space(4)};
    font-weight: 600;
  }
`;

const Past = styled.ol`
  li {
    display: grid;
    grid-template-columns: 96px minmax(0, 1fr) auto;
    gap: ${space(4)};
    align-items: baseline;
    padding: ${space(2.5)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  p {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  li > :last-child {
    display: flex;
    gap: ${space(4)};
  }
`;

const Standing = styled.p`
  padding: ${space(3)} ${space(4)};
  background: ${colour("card")};
  box-shadow: inset 6px 0 0 ${colour("act")};
`;

const moment = (at: string) =>
  new Date(at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" });

/** Releasing a plan to the machine, and what was released before, compared. */
export function ReleaseScreen({ session, tools }: { session: Session; tools: ReactNode }) {
  const runId = Number(useParams().runId);
  const units = usePlan(runId, "metric").data?.plan.run.units ?? "metric";
  const query = useReleases(runId, units);
  const [pair, setPair] = useState<{ number: number; other: number | null } | null>(null);
  const page = query.data;
  useEffect(() => {
    document.title = `Releases of ${page?.run.drawing_number ?? "a run"} · Noble Anvil`;
  }, [page]);
  if (query.isError)
    return (
      <Blank>
        <p>{query.error instanceof Refused ? query.error.message : "The server does not answer."}</p>
        <Link to="/">To the bench</Link>
      </Blank>
    );
  if (!page) return <Blank>Opening the releases …</Blank>;
  const mayPlan = session.role === "owner" || session.role === "planner";
  const [last] = page.releases;
  const shown = pair ?? (last ? { number: last.number, other: null } : null);
  return (
    <>
      <AppHeader title={`Releases of ${page.run.name}`} tools={tools} />
      <Main>
        <div>
          <h2>
            {page.run.name} {page.run.drawing_number}
          </h2>
          <p>
            <Link to={`/runs/${runId}/force`}>draft {page.revision}</Link>, {page.verdict}, under house rules{" "}
            {page.rules}
          </p>
        </div>
        {last && (
          <Standing>
            <b>Release {last.number}</b> is at the machine, from draft {last.revision}, by {last.by},{" "}
            {moment(last.at)}. <Link to={`/runs/${runId}/card`}>Its card</Link>.
            {last.revision !== page.revision && ` Draft ${page.revision} differs from it.`}
          </Standing>
        )}
        {last && session.role !== "operator" && (
          <div>
            <p>Card, releases, readings and the working of every figure, for the drawer:</p>
            <FolderButton key={last.number} runId={runId} units={units} />
          </div>
        )}
        {shown && pair === null && last && last.revision !== page.revision && (
          <>
            <h3>What changed since release {last.number}</h3>
            <Differences runId={runId} number={shown.number} other={shown.other} units={units} />
          </>
        )}
        {mayPlan && <ReleaseForm runId={runId} page={page} units={units} />}
        {last && (
          <>
            <h3>Released</h3>
            <Past>
              {page.releases.map((r, i) => {
                const before = page.releases[i + 1];
                return (
                  <li key={r.number}>
                    <b>release {r.number}</b>
                    <div>
                      draft {r.revision}, by {r.by}, {moment(r.at)}
                      <p>
                        {r.note && `${r.note}. `}
                        {r.confirmed.length} cautions confirmed; house rules {r.rules}
                      </p>
                    </div>
                    <span>
                      <Link to={`/runs/${runId}/force?release=${r.number}`}>look</Link>
                      {before && (
                        <TextButton onPress={() => setPair({ number: before.number, other: r.number })}>
                          against {before.number}
                        </TextButton>
                      )}
                      <TextButton onPress={() => setPair({ number: r.number, other: null })}>
                        against the draft
                      </TextButton>
                    </span>
                  </li>
                );
              })}
            </Past>
          </>
        )}
        {shown && pair !== null && (
          <>
            <h3>
              Release {pair.number} against {pair.other === null ? "the draft" : `release ${pair.other}`}
            </h3>
            <Differences runId={runId} number={shown.number} other={shown.other} units={units} />
          </>
        )}
      </Main>
    </>
  );
}
