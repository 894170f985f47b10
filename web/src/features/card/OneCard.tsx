import { useCallback, useState } from "react";
import styled from "styled-components";
import type { CardPage, Session, Units } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { NoteBox } from "../../shared/ui/NoteBox";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { WorkWaits } from "../../shared/ui/WorkWaits";
import { useKept } from "../../shared/useKept";
import { CardFront } from "./CardFront";
import { CardHead } from "./CardHead";
import { CardOnPaper } from "./CardOnPaper";
import { useArrows, useSwipe } from "./moving";
import { wordsOf } from "./pressing";
import { lookAt, measure, useWork } from "./queries";
import { type Entered, ReadingForm } from "./ReadingForm";
import { StepDone } from "./StepDone";
import { StepLine } from "./StepLine";
import { StepPicture } from "./StepPicture";
import { Standing } from "./standing";

const Whole = styled.div`
  display: grid;
  grid-template-rows: auto auto auto minmax(0, 1fr) auto;
  height: 100%;
  min-height: 0;
  @media print {
    display: none;
  }
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

const Body = styled.main`
  display: grid;
  grid-row: 4; /* behind what waits, which is mostly nothing */
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
  grid-row: 5;
  flex-wrap: wrap;
  gap: ${space(3)};
  align-items: end;
  padding: ${space(3)} ${space(5)};
  border-top: ${size.line} solid ${colour("hairline")};
`;

type Props = {
  page: CardPage;
  units: Units;
  session: Session;
  replaced: boolean;
  done: Pick<CardPage, "marks" | "readings">;
  lookedAt: number;
  onUnits: () => void;
};

const FRONT = -1;

/** A card that is there: its front, then one step on a screen. */
export function OneCard({ page, units, session, replaced, done, lookedAt, onUnits }: Props) {
  const { steps } = page.card;
  const isKept = useKept("card");
  const work = useWork(page, units, session.name, lookedAt);
  const standing = new Standing(done, work.waits);
  // One comes back to where one was: the first step that is open; a card that is not begun opens at its front.
  const [at, setAt] = useState(() => (standing.count(steps) > 0 ? standing.next(steps) : FRONT));
  const of = { runId: page.run, release: page.release.number, units };
  const { forget } = work;
  const [entered, setEntered] = useState<Entered | null>(null);
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
      forget();
    },
    [steps.length, forget],
  );
  const onEntered = useCallback((now: Entered) => {
    setEntered(now);
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
  const isDone = step !== undefined && standing.word(step.id) !== "open";
  const isReading = step?.ask != null;
  const hasReading = entered !== null && (entered.follows !== null || entered.unjudged);
  const mark = async (state: "done" | "skipped" | "open", then: () => void, reason = "") => {
    if (step && (await work.keep(step.id, { state, reason }))) then();
  };
  const read = async ({ values, instrument, follows }: Entered) => {
    if (!step) return;
    // What nobody judged yet is asked about when the server has.
    const reading = { values, instrument, sure: follows !== null, seen: standing.seen(step.id) };
    if (!(await work.keep(step.id, reading))) return;
    if (follows === null || follows.told.done) next();
    else again();
  };
  const press = () => {
    if (!step || !page.may_mark) return next();
    if (isReading && hasReading && entered) {
      if (!asked && entered.follows?.told.far) return setAsked(true);
      return void read(entered);
    }
    if (isDone) return next();
    if (!isReading) void mark("done", next);
  };
  const pressWords = wordsOf({
    step,
    isDone,
    isReading,
    hasReading,
    isUnjudged: entered?.unjudged === true,
    isLast: entered?.follows?.told.done !== false,
    asked,
    following,
    mayMark: page.may_mark,
  });
  const swipe = useSwipe((by) => go(at + by));
  useArrows((by) => go(at + by));
  return (
    <>
      <CardOnPaper page={page} standing={standing} />
      <Whole>
        <CardHead
          page={page}
          step={step}
          units={units}
          person={session.name}
          done={standing.count(steps)}
          away={work.away}
          onUnits={onUnits}
        />
        <StepLine steps={steps} at={at} standing={standing} onGo={go} />
        <WorkWaits
          titleOf={(w) => steps.find((s) => s.id === w.step)?.title ?? w.step}
          waits={work.waits}
          isKept={isKept}
        />
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
              <StepDone step={step} standing={standing} />
              {work.wrong && <NoteBox level="stop">{work.wrong}</NoteBox>}
            </article>
            <StepPicture page={page} step={step} />
          </Body>
        ) : (
          <Body tabIndex={0} style={{ display: "block" }} {...swipe}>
            {replaced && (
              <NoteBox level="stop">
                This release was replaced.{" "}
                <a href={`/runs/${page.run}/card`}>Open the card that stands now.</a>
              </NoteBox>
            )}
            <CardFront page={page} />
            {isKept === "never" && (
              <p className="mark">
                Under this address a card needs the network: a browser keeps it only where the address is
                served over HTTPS.
              </p>
            )}
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
              <Button onPress={() => void mark("skipped", next, skipping)}>Skip it</Button>
            </>
          )}
          {step && page.may_mark && standing.of(step.id) && (
            <button type="button" data-hand="open" onClick={() => void mark("open", () => undefined)}>
              open again
            </button>
          )}
          <button
            type="button"
            data-hand="next"
            disabled={work.isBusy || pressWords === null}
            onClick={press}
          >
            {pressWords ?? "Write what you read"}
          </button>
        </Foot>
        {replaced && step && (
          <NoteBox level="stop">
            This release was replaced. <a href={`/runs/${page.run}/card`}>Open the card that stands now.</a>
          </NoteBox>
        )}
      </Whole>
    </>
  );
}
