import { useEffect } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { BenchRow, Session } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Mark } from "../../shared/ui/Mark";
import { Blank, Header, HeaderNote, HeaderSide, HeaderTitle } from "../../shared/ui/Page";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { useBench } from "./queries";

const Main = styled.main`
  max-width: 1080px;
  margin: 0 auto;
  padding: ${space(6)} ${space(4.5)} ${space(12)};
  > p {
    max-width: 68ch;
    margin-bottom: ${space(6)};
    color: ${colour("soft")};
  }
  h2 {
    margin-bottom: ${space(2)};
    font-size: ${type.title};
    font-weight: 600;
  }
`;

const Row = styled(Link)`
  display: grid;
  grid-template-columns: ${size.mark} minmax(180px, 1fr) minmax(0, 2.4fr);
  gap: ${space(1)} ${space(4)};
  padding: ${space(4)} ${space(3)};
  background: ${colour("card")};
  border: ${size.line} solid ${colour("hairline")};
  border-bottom-width: 0;
  color: ${colour("ink")};
  text-decoration: none;
  li:last-child > & {
    border-bottom-width: ${size.line};
  }
  &:hover b {
    color: ${colour("act")};
  }
  b {
    font-size: ${type.run};
    font-weight: 600;
  }
  @media ${fold.phone} {
    grid-template-columns: ${size.mark} 1fr;
    > :last-child {
      grid-column: 2;
    }
  }
`;

const Soft = styled.span`
  display: block;
  font: 400 ${type.label}/1.3 ${face.narrow};
  color: ${colour("soft")};
`;

const Needs = styled.p`
  margin-bottom: ${space(2)};
  &[data-state="stopped"] {
    color: ${colour("stop")};
  }
`;

const Lines = styled.dl`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: ${space(1)} ${space(4)};
  font: 400 ${type.label}/1.3 ${face.narrow};
  dt {
    display: inline;
    color: ${colour("soft")};
    margin-right: ${space(1)};
  }
  dd {
    display: inline;
  }
`;

function RunRow({ run }: { run: BenchRow }) {
  return (
    <Row to={`/runs/${run.id}/part`}>
      <Mark state={run.verdict} />
      <span>
        <b>{run.name}</b>
        <Soft>
          {run.drawing_number} · {run.verdict}
        </Soft>
        <Soft>
          {run.quantity ?? "?"} pieces · {run.machine || "no machine"}
        </Soft>
        <Soft>
          {run.setup} · {run.units === "inch" ? "an inch plan" : "metric"}
        </Soft>
      </span>
      <div>
        <Needs data-state={run.verdict}>Next: {run.needs}</Needs>
        <Lines>
          {run.lines.map((l) => (
            <div key={l.title}>
              <dt>{l.title}</dt>
              <dd>{l.line}</dd>
            </div>
          ))}
        </Lines>
      </div>
    </Row>
  );
}

/** Home: the runs, how they stand, what each needs next. */
export function Bench({ session }: { session: Session }) {
  const bench = useBench();
  useEffect(() => {
    document.title = "Bench · Noble Anvil";
  }, []);
  if (bench.isError)
    return (
      <Blank>
        <p>The server does not answer.</p>
        <Button onPress={() => bench.refetch()}>Try again</Button>
      </Blank>
    );
  if (!bench.data) return <Blank>Opening the bench …</Blank>;
  return (
    <>
      <Header>
        <Link to="/">Noble Anvil</Link>
        <HeaderTitle>Bench</HeaderTitle>
        <HeaderSide>
          {session.demo && (
            <HeaderNote>Demo: the Larkspur shop is made up. You are signed in as its planner.</HeaderNote>
          )}
          <HeaderNote>
            {session.name === session.role ? session.role : `${session.name} · ${session.role}`}
          </HeaderNote>
        </HeaderSide>
      </Header>
      <Main>
        <p>
          Open a run, change a diameter or the pressure, and watch the pocket, the grip left at speed and the
          cap move. The planner is an aid: the makers’ documents, local regulations and a qualified person’s
          judgement come first.
        </p>
        <h2>Planning</h2>
        {bench.data.length === 0 ? (
          <Soft>No run is on the bench.</Soft>
        ) : (
          <ul>
            {bench.data.map((run) => (
              <li key={run.id}>
                <RunRow run={run} />
              </li>
            ))}
          </ul>
        )}
      </Main>
    </>
  );
}
