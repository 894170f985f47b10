import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { type GainFound, type Plan, said } from "../../api/client";
import { Dropped } from "../../shared/questions";
import { Button, TextButton } from "../../shared/ui/Button";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import type { Action } from "./acting";
import type { OfSide } from "./queries";
import { gainIdeas, gainOf } from "./settling";

const Box = styled.section`
  display: grid;
  gap: ${space(2)};
  margin-top: ${space(4)};
  padding-top: ${space(3)};
  border-top: ${size.line} solid ${colour("hairline")};
  h3 {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  ul {
    display: grid;
    gap: ${space(1.5)};
    list-style: none;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 ${space(2)};
    align-items: baseline;
  }
  b {
    color: ${colour("act")};
    font-variant-numeric: tabular-nums;
    white-space: nowrap;
  }
  small,
  summary {
    grid-column: 1 / -1;
    font: 400 ${type.small}/1.25 ${face.narrow};
    color: ${colour("soft")};
  }
  p {
    font: 400 ${type.label} ${face.narrow};
  }
`;

type Tried = { question: string; answer: GainFound };

/** What a change saves of a piece and of the run; of a set-up that cannot be run as it is, what it makes of it. */
function saves({ saves_min, saves_h, minutes }: GainFound) {
  if (saves_min === null) return { piece: "can be run", run: `${minutes?.toFixed(2) ?? "?"} min a piece` };
  return {
    piece: `−${saves_min.toFixed(saves_min < 0.1 ? 3 : 2)} min`,
    run: `${saves_h?.toFixed(1) ?? "?"} h over the run`,
  };
}

type Props = { of: OfSide; mayTake: boolean; onDo: (action: Action) => Promise<Plan | null> };

/** What would gain most in a set-up: each change settled in turn, the best first, taken by a press. */
export function Gains({ of, mayTake, onDo }: Props) {
  const [tried, setTried] = useState<readonly Tried[]>([]);
  const [left, setLeft] = useState<number | null>(null);
  const [wrong, setWrong] = useState("");
  const asking = useRef<AbortController | null>(null);
  useEffect(() => () => asking.current?.abort(), []);

  async function look() {
    const controller = new AbortController();
    asking.current = controller;
    setTried([]);
    setWrong("");
    try {
      const ideas = await gainIdeas(of);
      for (const [place, idea] of ideas.entries()) {
        setLeft(ideas.length - place);
        const found = await gainOf(of, idea.key, controller.signal);
        setTried((all) => [...all, { question: found.key, answer: found.answer }]);
      }
      if (ideas.length === 0) setWrong("There is nothing on the shelf to try instead.");
    } catch (error) {
      if (!controller.signal.aborted)
        setWrong(error instanceof Dropped ? "The plan has changed: look again." : said(error));
    }
    setLeft(null);
  }

  async function take({ question, answer }: Tried) {
    const done = await onDo({
      kind: "gain",
      setup: of.setup,
      idea: answer.key,
      question,
      base: of.revision,
    });
    if (done) setTried([]);
  }

  const gains = tried
    .filter((t) => t.answer.gains)
    .sort(
      (a, b) =>
        (b.answer.saves_min ?? Number.POSITIVE_INFINITY) - (a.answer.saves_min ?? Number.POSITIVE_INFINITY),
    );
  const none = tried.filter((t) => !t.answer.gains);
  const stale = tried.some((t) => t.answer.revision !== of.revision);
  return (
    <Box aria-label="What would gain most">
      <h3>What would gain most</h3>
      {left === null ? (
        <Button onPress={() => void look()}>
          {tried.length > 0 ? "Look again" : "Try other ways to hold it"}
        </Button>
      ) : (
        <p role="status">
          {left} left to settle … <TextButton onPress={() => asking.current?.abort()}>stop it</TextButton>
        </p>
      )}
      {wrong && <p role="alert">{wrong}</p>}
      {stale && <p role="status">Found for an earlier draft: look again before you take one.</p>}
      {gains.length > 0 && (
        <ul>
          {gains.map((t) => (
            <li key={t.answer.key}>
              {mayTake ? (
                <TextButton onPress={() => void take(t)} isDisabled={stale}>
                  {t.answer.label}
                </TextButton>
              ) : (
                <span>{t.answer.label}</span>
              )}
              <b>{saves(t.answer).piece}</b>
              <small>{saves(t.answer).run}, everything settled for it; cut and edge time</small>
            </li>
          ))}
        </ul>
      )}
      {left === null && tried.length > 0 && gains.length === 0 && <p>Nothing that was tried is quicker.</p>}
      {none.length > 0 && (
        <details>
          <summary>{none.length} tried without a gain</summary>
          <ul>
            {none.map((t) => (
              <li key={t.answer.key}>
                <span>{t.answer.label}</span>
                <small>{t.answer.why_not}</small>
              </li>
            ))}
          </ul>
        </details>
      )}
    </Box>
  );
}
