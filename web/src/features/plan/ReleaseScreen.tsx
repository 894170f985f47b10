import { type ReactNode, useEffect, useRef, useState } from "react";
import { Form } from "react-aria-components";
import { Link, useParams } from "react-router";
import styled from "styled-components";
import { Refused, type Releases, type Session, said, type Units } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { AppHeader, Blank, Told } from "../../shared/ui/Page";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { Differences } from "./Differences";
import { usePlan } from "./queries";
import { useRelease, useReleases } from "./releaseQueries";

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

const Confirm = styled.ul`
  label {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr) auto;
    gap: ${space(3)};
    align-items: center;
    min-height: ${size.touch};
    padding: ${space(1.5)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  input {
    width: 20px;
    height: 20px;
    accent-color: ${colour("act")};
  }
  small {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
`;

const Against = styled.ul`
  padding: ${space(3)} ${space(4)};
  background: ${colour("card")};
  box-shadow: inset 6px 0 0 ${colour("stop")};
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

const moment = (at: string) =>
  new Date(at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" });

type FormProps = { runId: number; page: Releases; units: Units };

function ReleaseForm({ runId, page, units }: FormProps) {
  const release = useRelease(runId, units);
  const [confirmed, setConfirmed] = useState<readonly string[]>([]);
  const [note, setNote] = useState("");
  // One key a try: a release that is sent again after a lost answer is released once.
  const key = useRef(crypto.randomUUID());
  const left = page.cautions.filter((c) => !confirmed.includes(c.code)).length;
  const number = (page.releases[0]?.number ?? 0) + 1;
  if (page.reasons.length > 0)
    return (
      <Against aria-label="What keeps it from being released">
        {page.reasons.map((reason) => (
          <li key={reason}>{reason}</li>
        ))}
      </Against>
    );
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        release.mutate(
          { base_revision: page.revision, confirmed: [...confirmed], note, key: key.current },
          {
            onSuccess: () => {
              key.current = crypto.randomUUID();
              setConfirmed([]);
              setNote("");
            },
          },
        );
      }}
    >
      <p>Confirm each of these, one by one. Your name and what you confirmed are kept with the release.</p>
      <Confirm aria-label="Cautions to confirm">
        {page.cautions.map((c) => (
          <li key={c.code}>
            <label>
              <input
                type="checkbox"
                checked={confirmed.includes(c.code)}
                onChange={(event) =>
                  setConfirmed(
                    event.target.checked
                      ? [...confirmed, c.code]
                      : confirmed.filter((code) => code !== c.code),
                  )
                }
              />
              <span>{c.text}</span>
              <small>{c.where}</small>
            </label>
          </li>
        ))}
      </Confirm>
      <Entry label="Remark" value={note} onChange={setNote} hint="May stay empty" />
      <Told role="alert">{release.error ? said(release.error) : ""}</Told>
      <Button type="submit" isDisabled={left > 0 || release.isPending}>
        {left > 0 ? `${left} still to confirm` : `Release draft ${page.revision} as release ${number}`}
      </Button>
    </Form>
  );
}

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
        {shown && (
          <>
            <h3>What differs</h3>
            <Differences runId={runId} number={shown.number} other={shown.other} units={units} />
          </>
        )}
      </Main>
    </>
  );
}
