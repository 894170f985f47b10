import { useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import styled from "styled-components";
import { type Plan, Refused, type Session, type Units } from "../../api/client";
import { Section } from "../../drawing/Section";
import { Button, TextButton } from "../../shared/ui/Button";
import { Blank, Header, HeaderNote, HeaderSide, HeaderTitle } from "../../shared/ui/Page";
import { Segments } from "../../shared/ui/Segments";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { useChanges } from "./changes";
import { ForceChart } from "./ForceChart";
import { Ledger } from "./Ledger";
import { usePlan } from "./queries";
import { Rail } from "./Rail";
import { ShortcutSheet } from "./ShortcutSheet";
import { Slip } from "./Slip";
import { useEditing } from "./useEditing";
import { useShortcuts } from "./useShortcuts";
import { WorkingSheet } from "./WorkingSheet";

const Page = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
  @media ${fold.phone} {
    height: auto;
  }
`;

/** Rail, drawing over ledger, slip; on a tablet the slip folds under the drawing. */
const Body = styled.main`
  display: grid;
  grid-template: "rail picture slip" minmax(260px, 54%) "rail lower slip" minmax(0, 1fr) / ${size.rail} minmax(0, 1fr) ${size.slip};
  min-height: 0;
  > nav {
    grid-area: rail;
  }
  > aside {
    grid-area: slip;
  }
  @media ${fold.tablet} {
    grid-template: "rail picture" 380px "rail slip" auto "rail lower" auto / ${size.rail} minmax(0, 1fr);
    overflow: auto;
    > nav {
      position: sticky;
      top: 0;
      height: calc(100vh - ${size.header});
    }
  }
  @media ${fold.phone} {
    grid-template: "rail" auto "picture" 320px "slip" auto "lower" auto / minmax(0, 1fr);
    overflow: visible;
    > nav {
      position: static;
      height: auto;
    }
  }
`;

const Picture = styled.section`
  grid-area: picture;
  position: relative;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  background: ${colour("card")};
  border-bottom: ${size.line} solid ${colour("hairline")};
`;

const Views = styled.div`
  display: flex;
  gap: ${space(4)};
  padding: ${space(2)} ${space(3.5)} 0;
  min-height: 30px;
  button {
    color: ${colour("soft")};
    text-decoration: none;
  }
  button[aria-pressed="true"] {
    color: ${colour("ink")};
    text-decoration: underline;
  }
  p {
    margin-left: auto;
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("caution")};
  }
`;

const Canvas = styled.div`
  position: relative;
  min-height: 0;
`;

const Lower = styled.div`
  grid-area: lower;
  overflow: auto;
  min-height: 0;
`;

const Words = styled.p`
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
`;

function keptAt(plan: Plan): string {
  const at = new Date(plan.run.changed_at);
  return at.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
}

type Props = { session: Session };

/** The plan of one run, walked stop by stop. */
export function PlanScreen({ session }: Props) {
  const runId = Number(useParams().runId);
  const stopName = useParams().stop ?? "part";
  const navigate = useNavigate();
  const [chosen, setChosen] = useState<{ runId: number; units: Units } | null>(null);
  const known = chosen?.runId === runId;
  // The run itself says in which units it opens; it is asked once.
  const first = usePlan(runId, known ? null : "metric");
  if (!known && first.data?.run.id === runId) setChosen({ runId, units: first.data.run.units });
  const units = known ? chosen.units : "metric";
  const query = usePlan(runId, units);
  const kept = query.data?.run.id === runId ? query.data : undefined;
  const editing = useEditing(runId, units, kept);
  const shown = editing.draft ?? kept;
  const changes = useChanges(kept, shown);
  const [lit, setLit] = useState<string | null>(null);
  const [working, setWorking] = useState<string | null>(null);
  const [view, setView] = useState<"chart" | "section">("chart");
  const [helpOpen, setHelpOpen] = useState(false);
  const stop = shown?.stops.find((s) => s.name === stopName);

  useEffect(() => {
    if (shown)
      document.title = `${shown.run.drawing_number} ${shown.run.name}: ${stop?.title ?? ""} · Noble Anvil`;
  }, [shown, stop]);

  function switchUnits(to: Units) {
    // What is being typed is kept in the units it was typed in, before they change.
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    setChosen({ runId, units: to });
  }
  useShortcuts({
    goTo: (index) => {
      const target = shown?.stops[index];
      if (target) navigate(`/runs/${runId}/${target.name}`);
    },
    units: () => switchUnits(units === "metric" ? "inch" : "metric"),
    working: () => setWorking((open) => (open ? null : (stop?.answers[0]?.name ?? null))),
    help: () => setHelpOpen((open) => !open),
  });

  if (query.isError && !kept) {
    const gone = query.error instanceof Refused && query.error.status === 404;
    return (
      <Blank>
        <p>{gone ? "There is no such run on the bench." : "The server does not answer."}</p>
        {gone ? <Link to="/">To the bench</Link> : <Button onPress={() => query.refetch()}>Try again</Button>}
      </Blank>
    );
  }
  if (!shown || !stop)
    return <Blank>{shown ? <Link to="../part">To the plan</Link> : "Opening the plan …"}</Blank>;

  const answer = stop.answers.find((a) => a.name === working);
  const { troubles } = editing;
  const troubled = shown.stops.filter((s) => s.facts.some((f) => f.path !== null && f.path in troubles));
  const elsewhere = troubled.find((s) => s.name !== stop.name);
  const here = troubled.includes(stop);
  return (
    <Page>
      <Header>
        <Link to="/">Noble Anvil</Link>
        <HeaderTitle>
          {shown.run.name} <span>{shown.run.drawing_number}</span>
        </HeaderTitle>
        <HeaderNote data-detail>
          {shown.run.quantity ?? "?"} pieces · {shown.run.machine || "no machine"} · draft {shown.revision},
          kept {keptAt(shown)}
        </HeaderNote>
        <HeaderNote data-strong>draft, not for the machine</HeaderNote>
        <HeaderSide>
          <Segments
            label="Units"
            value={units}
            options={[
              { value: "metric", label: "mm" },
              { value: "inch", label: "inch" },
            ]}
            onChange={(value) => switchUnits(value === "inch" ? "inch" : "metric")}
          />
          <Button onPress={() => setHelpOpen(true)} aria-label="Keyboard shortcuts">
            ?
          </Button>
          <HeaderNote>
            {session.role}
            {session.demo && " · demo"}
          </HeaderNote>
        </HeaderSide>
      </Header>
      <Body>
        <Rail plan={shown} changes={changes} />
        <Picture aria-label="Drawing">
          <Views>
            {stop.name === "force" && shown.chart && (
              <>
                <TextButton aria-pressed={view === "chart"} onPress={() => setView("chart")}>
                  Grip against speed
                </TextButton>
                <TextButton aria-pressed={view === "section"} onPress={() => setView("section")}>
                  Section
                </TextButton>
              </>
            )}
            {editing.othersWaiting && (
              <p role="status">
                An entry typed in {units === "metric" ? "inches" : "millimetres"} is not kept.
              </p>
            )}
            {elsewhere && (
              <p role="status">
                An entry in{" "}
                <Link to={`../${elsewhere.name}`} relative="path">
                  {elsewhere.title}
                </Link>{" "}
                is not kept.
              </p>
            )}
            {here && <p role="status">The drawing shows the last good state.</p>}
            {!here && editing.draft && <p role="status">Preview: Enter keeps it, Escape puts it back.</p>}
          </Views>
          <Canvas>
            {stop.name === "force" && shown.chart && view === "chart" ? (
              <ForceChart chart={shown.chart} />
            ) : (
              <Section
                scene={shown.scene}
                stop={stop.name}
                lit={lit}
                changed={(fact) => changes.has(`fact:${fact}`)}
                onLight={setLit}
              />
            )}
          </Canvas>
          <Words>{shown.scene.words.join(" ")}</Words>
        </Picture>
        <Lower>
          {answer ? (
            <WorkingSheet answer={answer} units={units} onClose={() => setWorking(null)} />
          ) : (
            <Ledger
              key={stop.name}
              stop={stop}
              changes={changes}
              lit={lit}
              mayEdit={shown.may_edit}
              troubles={troubles}
              onType={editing.type}
              onKeep={editing.keep}
              onCancel={editing.cancel}
              onTryAgain={editing.tryAgain}
              onTakeTheirs={editing.takeTheirs}
              onTakeMine={editing.takeMine}
              onLight={setLit}
            />
          )}
        </Lower>
        <Slip
          stop={stop}
          changes={changes}
          lit={lit}
          mayEdit={shown.may_edit}
          working={working}
          onWorking={setWorking}
          onHelp={(help) => editing.keep(help.path, { value: help.value as string | number | boolean })}
          onLight={setLit}
        />
      </Body>
      <ShortcutSheet isOpen={helpOpen} onClose={() => setHelpOpen(false)} />
    </Page>
  );
}
