import { type CSSProperties, type ReactNode, useEffect, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import styled from "styled-components";
import { Refused, type Session, type Units } from "../../api/client";
import { useOfferHits } from "../../shared/find/LocalHits";
import { Button } from "../../shared/ui/Button";
import { Blank } from "../../shared/ui/Page";
import { colour, fold, size, space } from "../../shared/ui/theme";
import { AtMachine } from "./AtMachine";
import { Banners } from "./Banners";
import { Divider, useShare } from "./Divider";
import { hitsOf, titleOf, useFocusedFact } from "./findable";
import { Ledger } from "./Ledger";
import type { FoundSettled } from "./Operations";
import { PlanHeader } from "./PlanHeader";
import { PlanPicture } from "./PlanPicture";
import { type Moment, usePlan } from "./queries";
import { Rail } from "./Rail";
import { ShortcutSheet } from "./ShortcutSheet";
import { Slip } from "./Slip";
import { AboveLedger, BelowLedger, InSlip } from "./StopExtras";
import { useLive } from "./useLive";
import { firstOf, usePlanInView } from "./usePlanInView";
import { useRoom } from "./useRoom";
import { useShortcuts } from "./useShortcuts";
import { useStart } from "./useStart";
import { useUndo } from "./useUndo";
import { WorkingSheet } from "./WorkingSheet";

const Page = styled.div`
  display: grid;
  grid-template: auto auto minmax(0, 1fr) / minmax(0, 1fr);
  height: 100%;
  @media ${fold.phone} {
    height: auto;
  }
`;

/**
 * Rail, drawing over ledger, slip. Where all that the slip says fits beside the drawing, the ledger has the width below
 * both; on a tablet always. On a phone the answers come first.
 */
const Body = styled.main`
  grid-row: 3;
  display: grid;
  grid-template:
    "rail picture slip" var(--share)
    "rail divider slip" auto
    "rail lower slip" minmax(0, 1fr)
    / ${size.rail} minmax(0, 1fr) ${size.slip};
  min-height: 0;
  &[data-fits] {
    grid-template-areas: "rail picture slip" "rail divider divider" "rail lower lower";
  }
  > nav {
    grid-area: rail;
  }
  > aside {
    grid-area: slip;
  }
  @media ${fold.tablet} {
    &,
    &[data-fits] {
      grid-template:
        "rail picture slip" var(--share)
        "rail divider divider" auto
        "rail lower lower" minmax(0, 1fr)
        / ${size.rail} minmax(0, 1fr) ${size.foldedSlip};
    }
  }
  @media ${fold.phone} {
    &,
    &[data-fits] {
      grid-template: "rail" auto "slip" auto "picture" 320px "lower" auto / minmax(0, 1fr);
    }
    overflow: visible;
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

/** The units a run is looked at in: its own, until the person chooses others. */
function useUnits(runId: number, key: string | undefined) {
  const [chosen, setChosen] = useState<{ runId: number; units: Units } | null>(null);
  const known = chosen?.runId === runId;
  // The run itself says in which units it opens; it is asked once, with the stop in the address in full.
  const first = usePlan(runId, known ? null : "metric", () => ({ stop: key ?? "", picture: "", setup: "" }));
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
  const [units, setUnits] = useUnits(runId, key);
  const [lit, setLit] = useState<string | null>(null);
  const [working, setWorking] = useState<string | null>(null);
  const [picked, setPicked] = useState<string | null>(null);
  const [helpOpen, setHelpOpen] = useState(false);
  const [settled, setSettled] = useState<{ stop: string; found: FoundSettled } | null>(null);
  const { query, past, kept, editing, draft, shown, changes, ...seen } = usePlanInView({
    runId,
    key,
    units,
    at,
    person: session.name,
    working,
    picked,
  });
  const { line, stop, isLate, side, sideIndex, group, picture, choose } = seen;
  const { below, answer, steps, helps, tables, pictures } = seen;
  const start = useStart(runId, kept?.plan, editing.act);
  // A table of many rows needs the room more than its picture.
  const begins = line?.name === "cuts" ? 42 : 54;
  const [chosen, setShare] = useShare(line?.name ?? "");
  const { body, slip, lower, fits, share } = useRoom(stop?.key, chosen, begins);
  const live = useLive(runId, units, kept?.plan, session.name, editing.sendWaiting);
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
  const reachable = (shown?.stops ?? []).filter((s) => s.side === null || s.side === sideIndex).slice(0, 9);
  const { undo, redo, told: undone } = useUndo(runId, units, editing.act);
  const help = () => setHelpOpen((open) => !open);
  useShortcuts({
    goTo: (index) => {
      const target = reachable[index];
      if (target) void navigate(`/runs/${runId}/${target.key}${search}`);
    },
    units: () => switchUnits(units === "metric" ? "inch" : "metric"),
    working: () => setWorking((open) => (open || !line ? null : firstOf(line))),
    undo,
    redo,
    print: () => {
      const of = shown?.release ? "" : "&draft=true";
      window.open(`/api/runs/${runId}/card.pdf?units=${units}${of}`, "_blank", "noopener");
    },
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
  if (!shown || !line) return <Blank>Opening the plan …</Blank>;

  const { troubles } = editing;
  const places = Object.values(troubles).map((t) => t.stop);
  const elsewhere = shown.stops.find((s) => s.key !== line.key && places.includes(s.key));
  const here = stop?.facts.some((f) => f.path !== null && f.path in troubles) ?? false;
  const said = [
    editing.told,
    live.isSilent && editing.unsent === 0 && "The server does not answer; what you keep waits here.",
    editing.unsent > 0 &&
      `${editing.unsent === 1 ? "One edit waits" : `${editing.unsent} edits wait`} here for the server.`,
    start.told,
    undone(kept?.plan.revision),
    live.news,
    editing.othersWaiting &&
      `An entry typed in ${units === "metric" ? "inches" : "millimetres"} is not kept.`,
    here && "The drawing shows the last good state.",
    !here && draft && "Preview: Enter keeps it, Escape puts it back.",
  ].filter((s): s is string => Boolean(s));
  const extras = stop && {
    plan: shown,
    stop,
    side,
    group,
    pictures,
    revision: at === null ? (kept?.plan.revision ?? 0) : null,
    mayKeep: session.role !== "operator",
    start,
    settled: settled?.stop === stop.key ? settled.found : null,
    onSettled: (found: FoundSettled | null) => setSettled(found && { stop: stop.key, found }),
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
      <Body ref={body} data-fits={fits || undefined} style={{ "--share": `${share}%` } as CSSProperties}>
        <Rail
          plan={shown}
          side={sideIndex}
          at={line.key}
          changes={changes}
          search={search}
          onLooksRight={
            at === null && shown.may_edit
              ? (setup) => void editing.act({ kind: "looksRight", setup, base: shown.revision })
              : null
          }
        />
        <PlanPicture
          stop={line}
          {...picture}
          headings={stop?.headings ?? []}
          group={group}
          onPick={setPicked}
          lit={lit}
          changes={changes}
          pull={editing}
          onLight={setLit}
          onChoose={choose}
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
        <Divider share={share} onShare={setShare} />
        <Lower ref={lower} data-scrolls aria-busy={(stop && isLate) || undefined}>
          {!stop || !extras ? (
            <Opening>Opening {line.title} …</Opening>
          ) : answer ? (
            <WorkingSheet answer={answer} steps={steps} units={units} onClose={() => setWorking(null)} />
          ) : (
            <Ledger
              key={stop.key}
              stop={stop}
              tables={tables}
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
              settled={extras.settled?.answer}
              lead={<AboveLedger {...extras} />}
            >
              <div ref={below} />
              <BelowLedger {...extras} />
            </Ledger>
          )}
        </Lower>
        {stop && extras && (
          <Slip
            ref={slip}
            stop={stop}
            helps={helps}
            changes={changes}
            lit={lit}
            working={answer?.name ?? null}
            onWorking={setWorking}
            onHelp={(h) =>
              h.takes_out
                ? void editing.act({ kind: "remove", path: h.path, base: shown.revision })
                : editing.keep(h.path, { value: h.value as string | number | boolean })
            }
            onLight={setLit}
          >
            <InSlip {...extras} />
          </Slip>
        )}
      </Body>
      <AtMachine plan={shown} units={units} />
      <ShortcutSheet stops={reachable.length} isOpen={helpOpen} onClose={() => setHelpOpen(false)} />
    </Page>
  );
}
