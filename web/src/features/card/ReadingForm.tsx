import { useEffect, useRef, useState } from "react";
import { Input, Label } from "react-aria-components";
import styled from "styled-components";
import {
  type CardAsk,
  type CardFollows,
  type CardReading,
  fieldErrors,
  NoAnswer,
  said,
} from "../../api/client";
import { HandField } from "../../shared/ui/HandField";
import { NoteBox } from "../../shared/ui/NoteBox";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { BluePictures } from "./BluePictures";
import { Follows } from "./Follows";
import type { Values } from "./queries";

const WAIT_MS = 150;

const Form = styled.div`
  display: grid;
  gap: ${space(4)};
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: ${space(3)} ${space(5)};
    align-items: end;
  }
  .expected {
    font: 400 ${type.run} ${face.narrow};
    color: ${colour("soft")};
  }
  .wrong {
    font: 400 ${type.run} ${face.narrow};
    color: ${colour("stop")};
  }
`;

const Field = styled(HandField)`
  &[data-first] input {
    width: 8.5ch;
    height: 72px;
    font-size: ${type.handAnswer};
    font-weight: 600;
  }
`;

const Presets = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(2)};
  button {
    min-width: ${size.hand};
    min-height: ${size.hand};
    padding: ${space(1)} ${space(4)};
    background: ${colour("card")};
    border: ${size.thick} solid ${colour("ink")};
    border-radius: ${size.radius};
    font-size: ${type.hand};
    cursor: pointer;
  }
  button[aria-pressed="true"] {
    background: ${colour("ink")};
    color: ${colour("card")};
  }
`;

type Props = {
  ask: CardAsk;
  /** What was read at this step before. */
  before: CardReading | undefined;
  mayMark: boolean;
  /** The shop's instruments for this reading, by name. */
  instruments: readonly string[];
  /** Reads an instrument: what is entered for it. */
  measure: (name: string) => Promise<string>;
  look: (values: Values, signal: AbortSignal) => Promise<CardFollows>;
  /** What is entered, and what follows from it: null while nothing does, `unjudged` where nobody answers. */
  onEntered: (entered: Entered) => void;
};

/** What was entered, by which instrument, and what follows from it. */
export type Entered = { values: Values; instrument: string; follows: CardFollows | null; unjudged: boolean };

function startOf(ask: CardAsk): Values {
  return Object.fromEntries(ask.blanks.map((b) => [b.name, b.kind === "flag" ? b.usual === "yes" : b.usual]));
}

const NOTHING = /^[0.,\s]*$/;

/** A reading with its expectation, entered by hand, by presets or by a keyboard-like instrument, and what follows. */
export function ReadingForm({ ask, before, mayMark, instruments, measure, look, onEntered }: Props) {
  const [reading, setReading] = useState("");
  const [values, setValues] = useState<Values>(() => startOf(ask));
  const [follows, setFollows] = useState<CardFollows | null>(null);
  const [wrong, setWrong] = useState<Record<string, string>>({});
  const [instrument, setInstrument] = useState("");
  const first = ask.blanks[0];
  const given = first ? values[first.name] !== "" : false;
  // What is entered alone has it asked again: both of these are made anew with every look at the card.
  const asking = useRef({ look, onEntered });
  useEffect(() => {
    asking.current = { look, onEntered };
  });
  useEffect(() => {
    if (!given) return;
    const controller = new AbortController();
    const waiting = setTimeout(() => {
      asking.current
        .look(values, controller.signal)
        .then((found) => {
          setFollows(found);
          setWrong({});
          asking.current.onEntered({ values, instrument, follows: found, unjudged: false });
        })
        .catch((error: unknown) => {
          if (controller.signal.aborted) return;
          setFollows(null);
          if (error instanceof NoAnswer)
            return asking.current.onEntered({ values, instrument, follows: null, unjudged: true });
          const at = fieldErrors(error);
          setWrong(Object.keys(at).length > 0 ? at : { "": said(error) });
        });
    }, WAIT_MS);
    return () => {
      clearTimeout(waiting);
      controller.abort();
    };
  }, [values, given, instrument]);
  const put = (name: string, value: string | boolean, by = name === first?.name ? "" : instrument) => {
    const now = { ...values, [name]: value };
    setValues(now);
    setFollows(null);
    setWrong({});
    setInstrument(by);
    onEntered({ values: now, instrument: by, follows: null, unjudged: false });
  };
  const take = async (name: string, into: string) => {
    setReading(name);
    try {
      put(into, await measure(name), name);
    } catch (error) {
      setWrong({ "": said(error) });
    } finally {
      setReading("");
    }
  };
  return (
    <Form>
      {ask.kind === "blue" && first && (
        <BluePictures ask={ask} chosen={String(values[first.name])} onChoose={(v) => put(first.name, v)} />
      )}
      <div className="row">
        {ask.blanks.map((b, i) =>
          b.kind === "quantity" ? (
            <Field
              key={b.name}
              data-first={i === 0 || undefined}
              value={String(values[b.name])}
              onChange={(v) => put(b.name, v)}
              isDisabled={!mayMark}
              isInvalid={Boolean(wrong[b.name])}
            >
              <Label>{b.label}</Label>
              <span>
                <Input autoComplete="off" inputMode="text" />
                {b.unit}
              </span>
            </Field>
          ) : null,
        )}
        {ask.expected && <p className="expected">{ask.expected}</p>}
      </div>
      {mayMark && first && instruments.length > 0 && (
        <Presets>
          {instruments.map((name) => (
            <button
              key={name}
              type="button"
              disabled={reading !== ""}
              onClick={() => void take(name, first.name)}
            >
              {reading === name ? `reading ${name} …` : `read ${name}`}
            </button>
          ))}
        </Presets>
      )}
      {ask.presets.length > 0 && first && (
        <Presets>
          {ask.presets.map((p) => (
            <button
              key={p}
              type="button"
              disabled={!mayMark}
              aria-pressed={values[first.name] === p}
              onClick={() => put(first.name, p)}
            >
              {NOTHING.test(p) ? "nothing goes in" : p}
            </button>
          ))}
        </Presets>
      )}
      {ask.kind !== "blue" &&
        ask.blanks
          .filter((b) => b.kind === "choice")
          .map((b) => (
            <Presets key={b.name} role="group" aria-label={b.label}>
              {b.options.map((o) => (
                <button
                  key={o.value}
                  type="button"
                  disabled={!mayMark}
                  aria-pressed={values[b.name] === o.value}
                  onClick={() => put(b.name, o.value)}
                >
                  {b.label} {o.label}
                </button>
              ))}
            </Presets>
          ))}
      {ask.blanks
        .filter((b) => b.kind === "flag")
        .map((b) => (
          <label key={b.name}>
            <input
              type="checkbox"
              disabled={!mayMark}
              checked={values[b.name] === true}
              onChange={(e) => put(b.name, e.target.checked)}
            />{" "}
            {b.label}
          </label>
        ))}
      {Object.entries(wrong).map(([name, words]) => (
        <p key={name} className="wrong" role="alert">
          {words}
        </p>
      ))}
      {follows ? (
        <Follows follows={follows} />
      ) : (
        before && (
          <>
            <p className="expected">
              Read before: {before.shown}, by {before.by}
            </p>
            <Follows follows={before.follows} />
          </>
        )
      )}
      {follows?.told.far && (
        <NoteBox level="caution">{follows.told.far} Press once more, and it counts as it is.</NoteBox>
      )}
    </Form>
  );
}
