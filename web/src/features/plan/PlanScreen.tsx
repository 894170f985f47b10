import { type ReactNode, useEffect, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import styled from "styled-components";
import { type Plan, Refused, type Session, type Units } from "../../api/client";
import { useOfferHits } from "../../shared/find/LocalHits";
import { Button } from "../../shared/ui/Button";
import { Blank } from "../../shared/ui/Page";
import { fold, size } from "../../shared/ui/theme";
import { Banners } from "./Banners";
import { useChanges } from "./changes";
import { hitsOf, titleOf, useFocusedFact } from "./findable";
import { groupInView, Ledger } from "./Ledger";
import { PlanHeader } from "./PlanHeader";
import { PlanPicture } from "./PlanPicture";
import { type Moment, usePlan, usePlanAt } from "./queries";
import { Rail } from "./Rail";
import { ShortcutSheet } from "./ShortcutSheet";
import { Slip } from "./Slip";
import { AboveLedger, BelowLedger, InSlip } from "./StopExtras";
import { useEditing } from "./useEditing";
import { useLive } from "./useLive";
import { useShortcuts } from "./useShortcuts";
import { WorkingSheet } from "./WorkingSheet";

const Page = styled.div`
  display: grid;
  grid-template: auto auto minmax(0, 1fr) / minmax(0, 1fr);
  height: 100%;
  @media ${fold.phone} {
    height: auto;
  }
`;

/** Rail, drawing over ledger, slip; on a tablet the slip folds under the drawing. */
const Body = styled.main`
  grid-row: 3;
  display: grid;
  grid-template:
    "rail picture slip" minmax(260px, 54%)
    "rail lower slip" minmax(0, 1fr)
    / ${size.rail} minmax(0, 1fr) ${size.slip};
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

const Lower = styled.div`
  grid-area: lower;
  overflow: auto;
  min-height: 0;
  min-width: 0;
`;

type Props = { session: Session; tools: ReactNode };

/** The draft or release asked for in the address, where an earlier state is looked at. */
function useMoment(): Moment | null {
  const [search] = useSearchParams();
  for (const name of ["at", "release"] as const) {
    const asked = search.get(name);
    if (asked !== null && /^\d{1,9}$/.test(asked)) return { [name]: Number(asked) } as Moment;
  }
  return null;
}

/** The units a run is looked at in: its own, until the person chooses others. */
function useUnits(runId: number) {
  const [chosen, setChosen] = useState<{ runId: number; units: Units } | null>(null);
  const known = chosen?.runId === runId;
  // The run itself says in which units it opens; it is asked once.
  const first = usePlan(runId, known ? null : "metric");
  if (!known && first.data?.run.id === runId) setChosen({ runId, units: first.data.run.units });
  const units: Units = known ? chosen.units : "metric";
  return [units, (next: Units) => setChosen({ runId, units: next })] as const;
}

/** The plan of one run, walked stop by stop. */
export function PlanScreen({ session, tools }: Props) {
  const runId = Number(useParams().runId);
  const key = useParams().stop;
  const at = useMoment();
  const navigate = useNavigate();
  const [units, setUnits] = useUnits(runId);
  const query = usePlan(runId, units);
  const past = usePlanAt(runId, units, at);
  const kept = query.data?.run.id === runId ? query.data : undefined;
  const editing = useEditing(runId, units, kept, session.name);
  const live = useLive(runId, units, kept, session.name, editing.sendWaiting);
  const shown: Plan | undefined = at === null ? (editing.draft ?? kept) : past.data;
  const changes = useChanges(kept, at === null ? shown : kept);
  const [lit, setLit] = useState<string | null>(null);
  const [working, setWorking] = useState<string | null>(null);
  const [picked, setPicked] = useState<string | null>(null);
  const [lastSide, setLastSide] = useState(0);
  const [helpOpen, setHelpOpen] = useState(false);
  // An address without a stop, or with one that is gone, leads to the first of that name, else to the first.
  const stop =
    shown?.stops.find((s) => s.key === key) ??
    shown?.stops.find((s) => s.name === key?.split("-")[0]) ??
    shown?.stops[0];
  if (stop?.side != null && stop.side !== lastSide) setLastSide(stop.side);
  const search =
    at === null ? "" : `?${new URLSearchParams(Object.entries(at).map(([k, v]) => [k, String(v)]))}`;
  useOfferHits(hitsOf(kept));
  useFocusedFact(stop);

  useEffect(() => {
    if (shown)
      document.title = `${shown.run.drawing_number} ${shown.run.name}: ${stop?.title ?? ""} · Noble Anvil`;
  }, [shown, stop]);

  function switchUnits(to: Units) {
    // What is being typed is kept in the units it was typed in, before they change.
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    setUnits(to);
  }
  // By keys: the part's stops and those of the side in view.
  const reachable = (shown?.stops ?? []).filter((s) => s.side === null || s.side === lastSide).slice(0, 9);
  const undo = () => void editing.act({ kind: "undo" });
  const redo = () => void editing.act({ kind: "redo" });
  const help = () => setHelpOpen((open) => !open);
  useShortcuts({
    goTo: (index) => {
      const target = reachable[index];
      if (target) void navigate(`/runs/${runId}/${target.key}${search}`);
    },
    units: () => switchUnits(units === "metric" ? "inch" : "metric"),
    working: () => setWorking((open) => (open ? null : (stop?.answers[0]?.name ?? null))),
    undo,
    redo,
    help,
  });

  const failed = at === null ? (kept ? null : query.error) : past.error;
  if (failed) {
    const gone = failed instanceof Refused && failed.status === 404;
    return (
      <Blank>
        <p>{gone ? failed.message : "The server does not answer."}</p>
        {gone ? <Link to="/">To the bench</Link> : <Button onPress={() => query.refetch()}>Try again</Button>}
      </Blank>
    );
  }
  if (!shown || !stop) return <Blank>Opening the plan …</Blank>;

  const answer = stop.answers.find((a) => a.name === working);
  const side = shown.sides[lastSide] ?? shown.sides[0];
  const { troubles } = editing;
  const group = groupInView(stop, picked, troubles);
  const troubled = shown.stops.filter((s) => s.facts.some((f) => f.path !== null && f.path in troubles));
  const elsewhere = troubled.find((s) => s.key !== stop.key);
  const here = troubled.includes(stop);
  const said = [
    editing.told,
    live.isSilent && editing.unsent === 0 && "The server does not answer; what you keep waits here.",
    editing.unsent > 0 &&
      `${editing.unsent === 1 ? "One edit waits" : `${editing.unsent} edits wait`} here for the server.`,
    live.news,
    editing.othersWaiting &&
      `An entry typed in ${units === "metric" ? "inches" : "millimetres"} is not kept.`,
    here && "The drawing shows the last good state.",
    !here && editing.draft && "Preview: Enter keeps it, Escape puts it back.",
  ].filter((s): s is string => Boolean(s));
  const extras = {
    plan: shown,
    stop,
    side,
    group,
    revision: at === null ? (kept?.revision ?? 0) : null,
    mayKeep: session.role !== "operator",
    onTake: editing.act,
    onKeep: editing.keep,
  };
  return (
    <Page>
      <PlanHeader
        plan={shown}
        units={units}
        tools={tools}
        onUnits={switchUnits}
        onUndo={undo}
        onRedo={redo}
        onHelp={help}
      />
      <Banners
        plan={shown}
        past={at !== null}
        stop={stop.key}
        mayPlan={session.role === "owner" || session.role === "planner"}
        onKeep={editing.keep}
      />
      <Body>
        <Rail plan={shown} side={lastSide} at={stop.key} changes={changes} search={search} />
        <PlanPicture
          stop={stop}
          side={side}
          group={group}
          lit={lit}
          changes={changes}
          pull={editing}
          onLight={setLit}
        >
          {elsewhere && (
            <p role="status">
              An entry in{" "}
              <Link to={`../${elsewhere.key}`} relative="path">
                {titleOf(shown, elsewhere)}
              </Link>{" "}
              is not kept.
            </p>
          )}
          {said.map((text) => (
            <p key={text} role="status">
              {text}
            </p>
          ))}
        </PlanPicture>
        <Lower>
          {answer ? (
            <WorkingSheet answer={answer} units={units} onClose={() => setWorking(null)} />
          ) : (
            <Ledger
              key={stop.key}
              stop={stop}
              changes={changes}
              lit={lit}
              troubles={troubles}
              revision={shown.revision}
              picked={picked}
              onPick={setPicked}
              onType={editing.type}
              onKeep={editing.keep}
              onCancel={editing.cancel}
              onTryAgain={editing.sendWaiting}
              onTakeTheirs={editing.takeTheirs}
              onTakeMine={editing.takeMine}
              onList={editing.act}
              onLight={setLit}
              lead={<AboveLedger {...extras} />}
            >
              <BelowLedger {...extras} />
            </Ledger>
          )}
        </Lower>
        <Slip
          stop={stop}
          changes={changes}
          lit={lit}
          working={working}
          onWorking={setWorking}
          onHelp={(h) => editing.keep(h.path, { value: h.value as string | number | boolean })}
          onLight={setLit}
        >
          <InSlip plan={shown} stop={stop} side={side} />
        </Slip>
      </Body>
      <ShortcutSheet stops={reachable.length} isOpen={helpOpen} onClose={() => setHelpOpen(false)} />
    </Page>
  );
}
