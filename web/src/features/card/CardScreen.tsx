import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import styled from "styled-components";
import {
  type CardFollows,
  type CardPage,
  type CardStep,
  type Session,
  said,
  type Units,
} from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { NoteBox } from "../../shared/ui/NoteBox";
import { Blank } from "../../shared/ui/Page";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { moment } from "../../shared/words";
import { CardFront } from "./CardFront";
import { lookAt, measure, useCard, useDo, useDone, type Values } from "./queries";
import { ReadingForm } from "./ReadingForm";
import { StepLine } from "./StepLine";
import { StepPicture } from "./StepPicture";
import { Standing } from "./standing";

const SWIPE_PX = 70;

const Whole = styled.div`
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr) auto;
  height: 100%;
  min-height: 0;
  button[data-hand] {
    min-height: ${size.hand};
    padding: ${space(2)} ${space(7)};
    background: ${colour("card")};
    border: ${size.thick} solid ${colour("ink")};
    border-radius: ${size.radius};
    font-size: ${type.hand};
    cursor: pointer;
  }
  button[data-hand="next"] {
    margin-left: auto;
    background: ${colour("ink")};
    color: ${colour("card")};
  }
  button[data-hand]:disabled {
    color: ${colour("soft")};
    background: ${colour("hairline")};
    border-color: ${colour("hairline")};
    cursor: default;
  }
`;

const Head = styled.header`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(1)} ${space(4)};
  align-items: baseline;
  padding: ${space(2.5)} ${space(5)};
  border-bottom: ${size.line} solid ${colour("ink")};
  h1 {
    font-size: ${type.hand};
    font-weight: 600;
  }
  p,
  a {
    font: 400 ${type.run} ${face.narrow};
    color: ${colour("soft")};
  }
  a {
    min-height: 24px;
    color: ${colour("act")};
  }
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: ${space(4)};
    margin-left: auto;
  }
`;

const Body = styled.main`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(16rem, 28%);
  min-height: 0;
  overflow: auto;
  > article {
    display: grid;
    gap: ${space(4)};
    align-content: start;
    padding: ${space(4)} ${space(6)};
  }
  .place {
    font: 400 ${type.run} ${face.narrow};
    color: ${colour("soft")};
  }
  h2 {
    font-size: ${type.handTitle};
    font-weight: 600;
    line-height: 1.15;
  }
  .words {
    display: grid;
    gap: ${space(2)};
    max-width: 46rem;
    font-size: ${type.hand};
    line-height: 1.4;
  }
  .mark {
    font: 400 ${type.run} ${face.narrow};
    color: ${colour("soft")};
  }
  @media ${fold.phone} {
    grid-template-columns: minmax(0, 1fr);
    > article {
      padding: ${space(4)};
    }
  }
`;

const Foot = styled.footer`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(3)};
  align-items: end;
  padding: ${space(3)} ${space(5)};
  border-top: ${size.line} solid ${colour("hairline")};
`;

/** The card of a run's release at the machine: one step on a screen, ticked, skipped or read. */
export function CardScreen({ session }: { session: Session }) {
  const runId = Number(useParams().runId);
  const [params, setParams] = useSearchParams();
  const units: Units = params.get("units") === "inch" ? "inch" : "metric";
  const release = params.get("release");
  const page = useCard(runId, units, release === null ? null : Number(release));
  const done = useDone(page.data, units);
  useEffect(() => {
    document.title = `Card of ${page.data?.name ?? "a run"} · Noble Anvil`;
  }, [page.data?.name]);
  if (page.isError)
    return (
      <Blank>
        <p>{said(page.error)}</p>
        <Link to={`/runs/${runId}`}>To the plan</Link>
      </Blank>
    );
  if (!page.data) return <Blank>Opening the card …</Blank>;
  return (
    <OneCard
      page={page.data}
      units={units}
      session={session}
      replaced={done.data?.replaced ?? page.data.release.replaced}
      standing={new Standing(done.data ?? page.data)}
      onUnits={() =>
        setParams({ ...Object.fromEntries(params), units: units === "metric" ? "inch" : "metric" })
      }
    />
  );
}

type Props = {
  page: CardPage;
  units: Units;
  session: Session;
  replaced: boolean;
  standing: Standing;
  onUnits: () => void;
};

const FRONT = -1;

function OneCard({ page, units, session, replaced, standing, onUnits }: Props) {
  const { steps } = page.card;
  // One comes back to where one was: the first step that is open; a card that is not begun opens at its front.
  const [at, setAt] = useState(() => (standing.count(steps) > 0 ? standing.next(steps) : FRONT));
  const of = { runId: page.run, release: page.release.number, units };
  const { mark, read } = useDo(of);
  const { reset: forgetMark } = mark;
  const { reset: forgetReading } = read;
  const [entered, setEntered] = useState<{ values: Values; follows: CardFollows | null } | null>(null);
  const [skipping, setSkipping] = useState<string | null>(null);
  const [asked, setAsked] = useState(false);
  const [times, setTimes] = useState(0);
  const step = steps[at];
  const go = useCallback(
    (place: number) => {
      setAt(Math.max(FRONT, Math.min(steps.length - 1, place)));
      setSkipping(null);
      setAsked(false);
      setEntered(null);
      forgetMark();
      forgetReading();
    },
    [steps.length, forgetMark, forgetReading],
  );
  const onEntered = useCallback((values: Values, follows: CardFollows | null) => {
    setEntered({ values, follows });
    setAsked(false);
  }, []);
  const following = steps[at + 1];
  const next = () => go(at + 1);
  /** What was read leaves something to do here: its form begins anew. */
  const again = () => {
    setEntered(null);
    setAsked(false);
    setTimes((n) => n + 1);
  };
  const isDone = step !== undefined && standing.of(step.id) !== undefined;
  const isReading = step?.ask != null;
  const hasReading = entered?.follows != null;
  const busy = mark.isPending || read.isPending;
  const press = () => {
    if (!step || !page.may_mark) return next();
    if (isReading && hasReading && entered) {
      const sure = asked || !entered.follows?.told.far;
      if (!sure) return setAsked(true);
      const then = entered.follows?.told.done ? next : again;
      return read.mutate({ step: step.id, values: entered.values, sure: true }, { onSuccess: then });
    }
    if (isDone) return next();
    if (!isReading) return mark.mutate({ step: step.id, state: "done" }, { onSuccess: next });
  };
  const pressWords = wordsOf({
    step,
    isDone,
    isReading,
    hasReading,
    isLast: entered?.follows?.told.done !== false,
    asked,
    following,
    mayMark: page.may_mark,
  });
  const swipe = useSwipe((by) => go(at + by));
  useKeys({ onStep: (by) => go(at + by) });
  const wrong = mark.error ?? read.error;
  return (
    <Whole>
      <Head>
        <h1>{page.name}</h1>
        <p>
          {page.drawing_number} · release {page.release.number}
          {step && step.side !== null && page.sides.length > 1 ? ` · side ${step.side + 1}` : ""} ·{" "}
          {page.machine}
        </p>
        <nav aria-label="Of this card">
          <p>
            {session.name} · {standing.count(steps)} of {steps.length} done
          </p>
          <TextButton onPress={onUnits}>{units === "metric" ? "in inch" : "in mm"}</TextButton>
          <a href={`/api/runs/${page.run}/card.pdf?units=${units}&release=${page.release.number}`}>
            On paper
          </a>
          <Link to={`/runs/${page.run}`}>The plan</Link>
        </nav>
      </Head>
      <StepLine steps={steps} at={at} standing={standing} onGo={go} />
      {step ? (
        <Body tabIndex={0} {...swipe}>
          <article key={step.id}>
            <p className="place">
              Step {at + 1} of {steps.length} · {step.place}
            </p>
            <h2>{step.title}</h2>
            <div className="words">
              {step.words.map((w) => (
                <p key={w}>{w}</p>
              ))}
            </div>
            {step.ask && (
              <ReadingForm
                key={`${step.id} ${units} ${times}`}
                ask={step.ask}
                before={standing.read(step.id)}
                mayMark={page.may_mark}
                instruments={page.instruments
                  .filter((i) => i.kind === step.ask?.instrument)
                  .map((i) => i.name)}
                measure={(name) => measure(name, units)}
                look={(values, signal) => lookAt(of, step.id, values, signal)}
                onEntered={onEntered}
              />
            )}
            <Done step={step} standing={standing} />
            {wrong && <NoteBox level="stop">{said(wrong)}</NoteBox>}
          </article>
          <StepPicture page={page} step={step} />
        </Body>
      ) : (
        <Body tabIndex={0} style={{ display: "block" }} {...swipe}>
          {replaced && (
            <NoteBox level="stop">
              This release was replaced. <a href={`/runs/${page.run}/card`}>Open the card that stands now.</a>
            </NoteBox>
          )}
          <CardFront page={page} />
        </Body>
      )}
      <Foot>
        <button type="button" data-hand="back" disabled={at === FRONT} onClick={() => go(at - 1)}>
          back
        </button>
        {step && page.may_mark && !isDone && step.kind !== "caution" && skipping === null && (
          <button type="button" data-hand="skip" onClick={() => setSkipping("")}>
            skip, and why
          </button>
        )}
        {step && skipping !== null && (
          <>
            <Entry
              label="Why it is skipped"
              value={skipping}
              onChange={setSkipping}
              maxLength={160}
              autoFocus
            />
            <Button
              onPress={() =>
                mark.mutate({ step: step.id, state: "skipped", reason: skipping }, { onSuccess: next })
              }
            >
              Skip it
            </Button>
          </>
        )}
        {step && page.may_mark && isDone && (
          <button
            type="button"
            data-hand="open"
            onClick={() => mark.mutate({ step: step.id, state: "open" })}
          >
            open again
          </button>
        )}
        <button type="button" data-hand="next" disabled={busy || pressWords === null} onClick={press}>
          {pressWords ?? "Write what you read"}
        </button>
      </Foot>
      {replaced && step && (
        <NoteBox level="stop">
          This release was replaced. <a href={`/runs/${page.run}/card`}>Open the card that stands now.</a>
        </NoteBox>
      )}
    </Whole>
  );
}

type Pressing = {
  step: CardStep | undefined;
  isDone: boolean;
  isReading: boolean;
  hasReading: boolean;
  /** The step is done with this reading. */
  isLast: boolean;
  asked: boolean;
  following: CardStep | undefined;
  mayMark: boolean;
};

/** What the one big button does next; null while it cannot. */
function wordsOf({
  step,
  isDone,
  isReading,
  hasReading,
  isLast,
  asked,
  following,
  mayMark,
}: Pressing): string | null {
  const then = following ? `Next: ${following.title.toLowerCase()}` : "To the end";
  if (!step) return "Begin";
  if (!mayMark) return following ? then : null;
  if (isReading && hasReading && asked) return "Yes, that is right. Keep it";
  if (isReading && hasReading) return isLast ? `Keep it. ${then}` : "Keep it, and read again";
  if (isDone) return following ? then : null;
  if (isReading) return null;
  return `Done. ${then}`;
}

/** What a step was ticked with. */
function Done({ step, standing }: { step: CardStep; standing: Standing }) {
  const mark = standing.of(step.id);
  if (!mark) return null;
  return (
    <p className="mark">
      {mark.state === "skipped" ? "Skipped" : "Done"} by {mark.by}, {moment(mark.at)}
      {mark.reason && `: ${mark.reason}`}
    </p>
  );
}

/** A finger drawn across goes a step on or back. */
function useSwipe(onStep: (by: 1 | -1) => void) {
  const from = useRef<{ x: number; y: number } | null>(null);
  return useMemo(
    () => ({
      onTouchStart: (e: React.TouchEvent) => {
        const [touch] = Array.from(e.touches);
        from.current = touch && e.touches.length === 1 ? { x: touch.clientX, y: touch.clientY } : null;
      },
      onTouchEnd: (e: React.TouchEvent) => {
        const [touch] = Array.from(e.changedTouches);
        if (!from.current || !touch) return;
        const [dx, dy] = [touch.clientX - from.current.x, touch.clientY - from.current.y];
        from.current = null;
        if (Math.abs(dx) > SWIPE_PX && Math.abs(dx) > 2 * Math.abs(dy)) onStep(dx < 0 ? 1 : -1);
      },
    }),
    [onStep],
  );
}

/** Arrows go a step on or back, outside of a field. */
function useKeys({ onStep }: { onStep: (by: 1 | -1) => void }) {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const at = e.target as HTMLElement | null;
      if (
        at?.closest("input, textarea, [role=group], [role=radiogroup]") ||
        e.altKey ||
        e.ctrlKey ||
        e.metaKey
      )
        return;
      if (e.key === "ArrowRight") onStep(1);
      if (e.key === "ArrowLeft") onStep(-1);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [onStep]);
}
