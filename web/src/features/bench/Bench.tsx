import { type ReactNode, useDeferredValue, useEffect, useState } from "react";
import { Input, SearchField } from "react-aria-components";
import { Link, useNavigate } from "react-router";
import styled from "styled-components";
import { type BenchRow, type Session, said } from "../../api/client";
import { useWaiting } from "../../shared/outbox";
import { Button } from "../../shared/ui/Button";
import { KeptCards } from "../../shared/ui/KeptCards";
import { AppHeader, Blank, Told } from "../../shared/ui/Page";
import { Segments } from "../../shared/ui/Segments";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { unsentEdits } from "../../shared/unsentEdits";
import { useBench, useRunFact } from "./queries";
import { type RunAction, RunHeading, RunRow, Soft } from "./RunRow";
import { CopySheet, DeleteSheet, RenameSheet } from "./RunSheets";

const Main = styled.main`
  max-width: 1240px;
  margin: 0 auto;
  padding: ${space(5)} ${space(4.5)} ${space(12)};
  > p {
    max-width: 76ch;
    color: ${colour("soft")};
  }
`;

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(3)} ${space(5)};
  align-items: center;
  margin: ${space(5)} 0 ${space(3)};
  > :last-child {
    margin-left: auto;
  }
  @media ${fold.phone} {
    > :last-child {
      margin-left: 0;
    }
  }
`;

const Search = styled(SearchField)`
  flex: 1 1 220px;
  max-width: 420px;
  input {
    width: 100%;
    height: 34px;
    padding: 0 ${space(2)};
    background: ${colour("card")};
    border: 0;
    border-bottom: ${size.thick} solid ${colour("act")};
    border-radius: 0;
  }
  input::placeholder {
    color: ${colour("soft")};
    font-family: ${face.narrow};
  }
`;

const Empty = styled.div`
  display: grid;
  gap: ${space(3)};
  justify-items: start;
  padding: ${space(6)} ${space(4)};
  border: ${size.line} dashed ${colour("hairline")};
  font-size: ${type.body};
`;

const Pages = styled.nav`
  display: flex;
  gap: ${space(4)};
  align-items: center;
  margin-top: ${space(4)};
`;

function Waiting({ person }: { person: string }) {
  const unsent = useWaiting(unsentEdits, person);
  const runs = [...new Set(unsent.map((e) => e.runId))];
  if (runs.length === 0) return null;
  return (
    <Told role="status">
      {unsent.length === 1 ? "One edit waits" : `${unsent.length} edits wait`} in this browser for the server:{" "}
      {runs.map((id) => (
        <Link key={id} to={`/runs/${id}`}>
          open the plan to send
        </Link>
      ))}
    </Told>
  );
}

const MAY_PLAN: readonly Session["role"][] = ["owner", "planner"];

type Doing = { action: RunAction; run: BenchRow };

/** Home: the runs, what needs attention first, what each needs next. */
export function Bench({ session, tools }: { session: Session; tools: ReactNode }) {
  const [words, setWords] = useState("");
  const [putAway, setPutAway] = useState(false);
  const [page, setPage] = useState(0);
  const [doing, setDoing] = useState<Doing | null>(null);
  const bench = useBench(useDeferredValue(words), putAway, page);
  const fact = useRunFact();
  const navigate = useNavigate();
  useEffect(() => {
    document.title = "Bench · Noble Anvil";
  }, []);
  const mayEdit = MAY_PLAN.includes(session.role);
  if (bench.isError)
    return (
      <Blank>
        <p>The server does not answer.</p>
        <KeptCards person={session.name} />
        <Button onPress={() => bench.refetch()}>Try again</Button>
      </Blank>
    );
  if (!bench.data) return <Blank>Opening the bench …</Blank>;
  const { rows, total, page_size: pageSize, planning, away } = bench.data;
  const pages = Math.max(1, Math.ceil(total / pageSize));

  function act(action: RunAction, run: BenchRow) {
    if (action === "put away")
      fact.mutate({ id: run.id, revision: run.revision, path: "put_away", value: !run.put_away });
    else if (action === "save") window.location.assign(`/api/runs/${run.id}/file`);
    else setDoing({ action, run });
  }
  const close = () => setDoing(null);
  return (
    <>
      <AppHeader title="Bench" tools={tools} />
      <Main>
        <p>
          {session.demo && "Demo: the Larkspur shop is made up. "}
          The planner is an aid: the makers’ documents, local regulations and a qualified person’s judgement
          come first.
        </p>
        <Waiting person={session.name} />
        <Bar>
          <Segments
            label="Which runs"
            value={putAway ? "away" : "planning"}
            options={[
              { value: "planning", label: `Planning ${planning}` },
              { value: "away", label: `Put away ${away}` },
            ]}
            onChange={(which) => {
              setPutAway(which === "away");
              setPage(0);
            }}
          />
          <Search
            aria-label="Find runs by any word"
            value={words}
            onChange={(next) => {
              setWords(next);
              setPage(0);
            }}
          >
            <Input placeholder="Find by any word: part, drawing, machine, material, chuck" />
          </Search>
          {mayEdit && <Button onPress={() => void navigate("/new")}>New run</Button>}
        </Bar>
        {fact.error && <Told role="alert">{said(fact.error)}</Told>}
        {rows.length === 0 ? (
          <Empty>
            {words.trim() ? (
              <>
                <p>No run here has all of these words.</p>
                <Button onPress={() => setWords("")}>Show all</Button>
              </>
            ) : putAway ? (
              <p>Nothing is put away. A run that is done can be put away and copied the next time.</p>
            ) : (
              <>
                <p>
                  The bench is empty. A run is a part to make in a quantity: its plan holds jaws, grip, cuts.
                </p>
                {mayEdit && <Button onPress={() => void navigate("/new")}>Put the first run on it</Button>}
              </>
            )}
          </Empty>
        ) : (
          <>
            <RunHeading />
            <ul>
              {rows.map((run) => (
                <RunRow key={run.id} run={run} mayEdit={mayEdit} onAction={act} />
              ))}
            </ul>
          </>
        )}
        {pages > 1 && (
          <Pages aria-label="Pages of the bench">
            <Button isDisabled={page === 0} onPress={() => setPage(page - 1)}>
              Before
            </Button>
            <Soft>
              {page * pageSize + 1} to {Math.min(total, (page + 1) * pageSize)} of {total}, what needs
              attention first
            </Soft>
            <Button isDisabled={page + 1 >= pages} onPress={() => setPage(page + 1)}>
              After
            </Button>
          </Pages>
        )}
      </Main>
      {doing?.action === "copy" && <CopySheet run={doing.run} onClose={close} />}
      {doing?.action === "rename" && <RenameSheet run={doing.run} onClose={close} />}
      {doing?.action === "delete" && <DeleteSheet run={doing.run} onClose={close} />}
    </>
  );
}
