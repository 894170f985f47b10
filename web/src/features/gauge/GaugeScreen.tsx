import { type ReactNode, useCallback, useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import styled from "styled-components";
import { type GaugeRunLine, Refused, type Session, said } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { AppHeader, Blank, Told } from "../../shared/ui/Page";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { GaugeChart } from "./GaugeChart";
import { NewRunForm } from "./NewRunForm";
import { useChuckGauge, useGaugeRun, useGrease } from "./queries";
import { Canvas, RunPanel } from "./RunPanel";
import { TrendChart } from "./TrendChart";
import { useLiveGauge } from "./useLiveGauge";

const Main = styled.main`
  max-width: 1180px;
  margin: 0 auto;
  padding: ${space(5)} ${space(4.5)} ${space(12)};
  display: grid;
  grid-template-columns: minmax(0, 1fr) 22rem;
  gap: ${space(4)} ${space(8)};
  align-items: start;
  h2 {
    font-size: ${type.run};
    font-weight: 600;
  }
  h3 {
    margin: ${space(4)} 0 ${space(1)};
    font-weight: 600;
  }
  @media ${fold.tablet} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const Runs = styled.ul`
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: ${space(1)} ${space(3)};
    padding: ${space(2)} ${space(2)};
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  li[data-open] {
    background: ${colour("card")};
    box-shadow: inset 3px 0 0 ${colour("act")};
  }
  small {
    grid-column: 1 / -1;
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
`;

const Warning = styled.p`
  padding: ${space(2)} ${space(3)};
  background: ${colour("card")};
  box-shadow: inset 6px 0 0 ${colour("caution")};
`;

function RunLine({
  run,
  counts,
  isOpen,
  onOpen,
}: {
  run: GaugeRunLine;
  counts: boolean;
  isOpen: boolean;
  onOpen: () => void;
}) {
  return (
    <li data-open={isOpen || undefined}>
      <TextButton onPress={onOpen} aria-current={isOpen || undefined}>
        {run.on}
      </TextButton>
      <b>{run.kept ? run.condition : "not kept"}</b>
      <small>
        {run.pressure}, {run.side === "od" ? "outside" : "inside"}
        {run.jaw_set && `, ${run.jaw_set}`}
        {run.kept && `, ${run.static} standing still`}
        {counts && "; plans count with it"}
        {run.note && `. ${run.note}`}
      </small>
    </li>
  );
}

/** A chuck's grip as it was measured: runs, their fits, the greasing log, and where the condition is going. */
export function GaugeScreen({ session, tools }: { session: Session; tools: ReactNode }) {
  const key = useParams().key ?? "";
  const query = useChuckGauge(key, "metric");
  const [opened, setOpened] = useState<number | "new" | null>(null);
  const chuck = query.data;
  const id = opened === "new" ? null : (opened ?? chuck?.runs[0]?.id ?? null);
  const run = useGaugeRun(id, "metric");
  const grease = useGrease(key);
  const again = run.refetch;
  const live = useLiveGauge(useCallback(() => void again(), [again]));
  const mayNote = session.role !== "operator";
  useEffect(() => {
    document.title = `Grip gauge, ${chuck?.name ?? ""} · Noble Anvil`;
  }, [chuck]);
  if (query.isError)
    return (
      <Blank>
        <p>{query.error instanceof Refused ? query.error.message : "The server does not answer."}</p>
        <Link to="/shelf">To the shelf</Link>
      </Blank>
    );
  if (!chuck) return <Blank>Opening the gauge runs …</Blank>;
  const spots = live.points.map(([rpm = 0, grip = 0], i) => ({
    number: i,
    rpm,
    grip: grip / 1000,
    left_out: false,
    off: null,
  }));
  return (
    <>
      <AppHeader title={`Grip gauge, ${chuck.name}`} tools={tools} />
      <Main>
        <div>
          <h2>{chuck.name}: measured grip</h2>
          {chuck.warning && <Warning role="status">{chuck.warning}</Warning>}
          {live.isReading && (
            <section aria-label="Readings arriving">
              <Canvas>
                <GaugeChart spots={spots} curve={[]} outliers={[]} unit="kN" />
              </Canvas>
              <p role="status">
                {live.total} readings so far <Button onPress={live.cut}>Stop here</Button>
              </p>
            </section>
          )}
          {live.told && <Told role={live.good ? "status" : "alert"}>{live.told}</Told>}
          {!live.isReading && opened !== "new" && run.data && (
            <RunPanel run={run.data} mayNote={mayNote} onGone={() => setOpened(null)} />
          )}
          {!live.isReading && opened !== "new" && chuck.runs.length === 0 && (
            <p>No gauge run yet. Take readings in by hand, from a file, or from a gauge.</p>
          )}
          {mayNote && opened === "new" && (
            <>
              <h3>A new run</h3>
              <NewRunForm
                chuck={chuck}
                units="metric"
                onMade={(made, gauge) => {
                  setOpened(made.id);
                  if (gauge) live.start(made.id, gauge);
                }}
              />
            </>
          )}
        </div>
        <aside>
          <h3>Grease</h3>
          <p>{chuck.grease}</p>
          {mayNote && (
            <Button onPress={() => grease.mutate("")} isDisabled={grease.isPending}>
              Greased just now
            </Button>
          )}
          <Told role="alert">{grease.error ? said(grease.error) : ""}</Told>
          {chuck.trend.length > 1 && (
            <>
              <h3>Condition over time</h3>
              <TrendChart points={chuck.trend} greased={chuck.greased.map((g) => g.on)} />
            </>
          )}
          <h3>Gauge runs</h3>
          {mayNote && <Button onPress={() => setOpened("new")}>New run</Button>}
          <Runs>
            {chuck.runs.map((r) => (
              <RunLine
                key={r.id}
                run={r}
                counts={r.id === chuck.counts}
                isOpen={r.id === id}
                onOpen={() => setOpened(r.id)}
              />
            ))}
          </Runs>
          <p>
            <Link to={`/shelf/chuck/${chuck.key}`}>The chuck on the shelf</Link>
          </p>
        </aside>
      </Main>
    </>
  );
}
