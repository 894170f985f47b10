import { type ReactNode, useEffect, useRef, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import styled from "styled-components";
import { type Plan, Refused, type Session, type StopLine, type Units } from "../../api/client";
import { useOfferHits } from "../../shared/find/LocalHits";
import { Button } from "../../shared/ui/Button";
import { Blank } from "../../shared/ui/Page";
import { colour, fold, size, space } from "../../shared/ui/theme";
import { useInView } from "../../shared/ui/useInView";
import { Banners } from "./Banners";
import { useChanges } from "./changes";
import { hitsOf, titleOf, useFocusedFact } from "./findable";
import { latest, partOf, type Shown, shownOf, stopOf } from "./kept";
import { groupInView, Ledger } from "./Ledger";
import { PlanHeader } from "./PlanHeader";
import { PlanPicture } from "./PlanPicture";
import { type Moment, usePlan, usePlanAt } from "./queries";
import { Rail } from "./Rail";
import { ShortcutSheet } from "./ShortcutSheet";
import { Slip } from "./Slip";
import { AboveLedger, BelowLedger, InSlip } from "./StopExtras";
import { useEditing } from "./useEditing";
import { useLateParts } from "./useLateParts";
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

const Opening = styled.p`
  padding: ${space(4)};
  color: ${colour("soft")};
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

/** The stop of an address: one that is gone leads to the first of its name, none to the first of all. */
function lineOf(plan: Plan | undefined, key: string | undefined): StopLine | undefined {
  return (
    plan?.stops.find((s) => s.key === key) ??
    plan?.stops.find((s) => s.name === key?.split("-")[0]) ??
    plan?.stops[0]
  );
}

/** The units a run is looked at in: its own, until the person chooses others. */
function useUnits(runId: number) {
  const [chosen, setChosen] = useState<{ runId: number; units: Units } | null>(null);
  const known = chosen?.runId === runId;
  // The run itself says in which units it opens; it is asked once.
  const first = usePlan(runId, known ? null : "metric");
  const run = first.data?.plan.run;
  if (!known && run?.id === runId) setChosen({ runId, units: run.units });
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
  const [views, setViews] = useState<Readonly<Record<string, string>>>({});
  const looked = useRef({ stop: key ?? "", picture: "", setup: "" });
  const [lastSide, setLastSide] = useState<{ index: number; id: string }>({ index: 0, id: "" });
  const query = usePlan(runId, units, () => looked.current);
  const past = usePlanAt(runId, units, at);
  const kept = query.data?.plan.run.id === runId ? query.data : undefined;
  const look = {
    stop: lineOf(kept?.plan, key)?.key ?? key ?? "",
    picture: views[key?.split("-")[0] ?? ""] ?? "",
    setup: lastSide.id,
  };
  useEffect(() => {
    looked.current = look;
  });
  const editing = useEditing(runId, units, kept, session.name, look);
  const { draft } = editing;
  const live = useLive(runId, units, kept?.plan, session.name, editing.sendWaiting);
  const state: Shown | undefined = at === null ? kept && shownOf(kept, draft) : past.data;
  const shown = state?.plan;
  const changes = useChanges(at === null ? kept : undefined, at === null ? draft : null);
  const [lit, setLit] = useState<string | null>(null);
  const [working, setWorking] = useState<string | null>(null);
  const [picked, setPicked] = useState<string | null>(null);
  const [helpOpen, setHelpOpen] = useState(false);
  const line = lineOf(shown, key);
  if (line?.side != null && line.setup !== null && line.side !== lastSide.index)
    setLastSide({ index: line.side, id: line.setup });
  const side = shown?.sides[lastSide.index] ?? shown?.sides[0];
  const stop = state && stopOf(state, line);
  const group = stop && groupInView(stop, picked, editing.troubles);
  const offers = stop?.offers.filter((o) => o.group === "" || o.group === group) ?? [];
  const chosen = offers.find((o) => o.name === (line && views[line.name])) ?? offers[0];
  const pictured = chosen && line && side ? partOf(chosen, line, side.id) : undefined;
  const below = useRef<HTMLDivElement>(null);
  const isBelow = useInView(below, stop?.key ?? "");
  const named = (name: string) => `${name}:${line?.key ?? ""}`;
  const openAnswer = stop?.answers.find((a) => a.name === working);
  useLateParts({
    runId,
    units,
    kept: at === null ? kept : undefined,
    draft,
    names: [
      ...(stop && pictured ? [pictured, named("helps")] : []),
      ...(stop && isBelow ? [named("tables"), named("pictures")] : []),
      ...(openAnswer ? [`${named("working")}:${openAnswer.name}`] : []),
    ],
    lay: editing.lay,
  });
  // Another stop came into view: it is asked for in full.
  const isMissing = at === null && draft === null && kept !== undefined && line !== undefined && !stop;
  const { refetch } = query;
  useEffect(() => {
    if (isMissing && key !== undefined) void refetch();
  }, [isMissing, key, refetch]);
  const search =
    at === null ? "" : `?${new URLSearchParams(Object.entries(at).map(([k, v]) => [k, String(v)]))}`;
  useOfferHits(hitsOf(kept?.plan));
  useFocusedFact(stop);

  useEffect(() => {
    if (shown)
      document.title = `${shown.run.drawing_number} ${shown.run.name}: ${line?.title ?? ""} · Noble Anvil`;
  }, [shown, line]);

  function switchUnits(to: Units) {
    // What is being typed is kept in the units it was typed in, before they change.
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    setUnits(to);
  }
  // By keys: the part's stops and those of the side in view.
  const reachable = (shown?.stops ?? [])
    .filter((s) => s.side === null || s.side === lastSide.index)
    .slice(0, 9);
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
  if (!state || !shown || !line) return <Blank>Opening the plan …</Blank>;

  const { troubles } = editing;
  const places = Object.values(troubles).map((t) => t.stop);
  const elsewhere = shown.stops.find((s) => s.key !== line.key && places.includes(s.key));
  const here = stop?.facts.some((f) => f.path !== null && f.path in troubles) ?? false;
  const said = [
    editing.told,
    live.isSilent && editing.unsent === 0 && "The server does not answer; what you keep waits here.",
    editing.unsent > 0 &&
      `${editing.unsent === 1 ? "One edit waits" : `${editing.unsent} edits wait`} here for the server.`,
    live.news,
    editing.othersWaiting &&
      `An entry typed in ${units === "metric" ? "inches" : "millimetres"} is not kept.`,
    here && "The drawing shows the last good state.",
    !here && draft && "Preview: Enter keeps it, Escape puts it back.",
  ].filter((s): s is string => Boolean(s));
  const last = at === null ? kept : undefined;
  const extras = stop && {
    plan: shown,
    stop,
    side,
    group,
    pictures: latest(state, last, named("pictures"), (p) => p.pictures),
    revision: at === null ? (kept?.plan.revision ?? 0) : null,
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
        stop={line.key}
        mayPlan={session.role === "owner" || session.role === "planner"}
        onKeep={editing.keep}
      />
      <Body>
        <Rail plan={shown} side={lastSide.index} at={line.key} changes={changes} search={search} />
        <PlanPicture
          stop={line}
          offers={offers}
          chosen={chosen}
          part={pictured === undefined ? undefined : state.parts.get(pictured)}
          lit={lit}
          changes={changes}
          pull={editing}
          onLight={setLit}
          onChoose={(name) => setViews((all) => ({ ...all, [line.name]: name }))}
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
        <Lower data-scrolls>
          {!stop || !extras ? (
            <Opening>Opening {line.title} …</Opening>
          ) : openAnswer ? (
            <WorkingSheet
              answer={openAnswer}
              steps={state.parts.get(`${named("working")}:${openAnswer.name}`)?.steps ?? undefined}
              units={units}
              onClose={() => setWorking(null)}
            />
          ) : (
            <Ledger
              key={stop.key}
              stop={stop}
              tables={latest(state, last, named("tables"), (p) => p.tables)}
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
              <div ref={below} />
              <BelowLedger {...extras} />
            </Ledger>
          )}
        </Lower>
        {stop && extras && (
          <Slip
            stop={stop}
            helps={latest(state, last, named("helps"), (p) => p.helps)}
            changes={changes}
            lit={lit}
            working={working}
            onWorking={setWorking}
            onHelp={(h) => editing.keep(h.path, { value: h.value as string | number | boolean })}
            onLight={setLit}
          >
            <InSlip plan={shown} stop={stop} side={side} />
          </Slip>
        )}
      </Body>
      <ShortcutSheet stops={reachable.length} isOpen={helpOpen} onClose={() => setHelpOpen(false)} />
    </Page>
  );
}
