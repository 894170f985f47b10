import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import { fieldErrors, type Plan, type PlanList, type Settled, said } from "../../api/client";
import { type Standing, standingWords } from "../../shared/questions";
import { Button, TextButton } from "../../shared/ui/Button";
import { Segments } from "../../shared/ui/Segments";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import type { Action } from "./acting";
import type { OfSide } from "./queries";
import { type Goal, settle } from "./settling";

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(2)} ${space(5)};
  align-items: center;
  padding: ${space(2)} ${space(1)};
  @media ${fold.tablet} {
    row-gap: ${space(4)};
    padding-bottom: ${space(4)};
  }
`;

const Found = styled.section`
  display: grid;
  gap: ${space(2)};
  margin-top: ${space(3)};
  padding: ${space(3)};
  background: ${colour("card")};
  border: ${size.line} solid ${colour("act")};
  h3 {
    font: 600 ${type.label} ${face.narrow};
  }
`;

const Wrong = styled.p`
  margin-top: ${space(2)};
  color: ${colour("stop")};
`;

const GOALS = [
  { value: "quickest", label: "quick" },
  { value: "cheapest", label: "cheap" },
  { value: "life", label: "long edge life" },
] as const;

/** What was found is brought into view where it stands below it. */
function inSight(element: HTMLElement | null) {
  element?.scrollIntoView?.({ block: "nearest" });
}

/** An answer of settling, and the question that it answers. */
export type FoundSettled = { key: string; answer: Settled };

type Props = {
  of: OfSide;
  list: PlanList;
  /** The shop counts money: settling can aim at the cheapest piece. */
  money: boolean;
  /** The id of the cut in view. */
  cut: string | undefined;
  /** What settling found, told in the table of all cuts. */
  found: FoundSettled | null;
  onFound: (found: FoundSettled | null) => void;
  onDo: (action: Action) => Promise<Plan | null>;
};

/** What is done with whole operations: proposed, put in order, split, settled. */
export function Operations({ of, list, money, cut, found, onFound, onDo }: Props) {
  const { setup, revision } = of;
  const [goal, setGoal] = useState<Goal>("quickest");
  const [wrong, setWrong] = useState("");
  const [standing, setStanding] = useState<Standing | null>(null);
  const asking = useRef<AbortController | null>(null);
  useEffect(() => () => asking.current?.abort(), []);
  const busy = standing !== null;
  const place = list.items.findIndex((item) => item.id === cut);
  const here = list.items[place];
  if (!list.may_add && !list.items.some((item) => item.may_take_out)) return null;
  const path = `${list.path}.${here?.id}`;
  /** Put the cut in view behind the one at a place; first where there is none. */
  const moveBehind = (at: number) =>
    void onDo({ kind: "move", path, behind: list.items[at]?.id ?? "", base: revision });

  async function look(which: string | null) {
    const controller = new AbortController();
    asking.current = controller;
    setStanding({ state: "waiting", before: 0, done: 0, of: 0, told: "" });
    setWrong("");
    onFound(null);
    try {
      onFound(await settle(of, { cut: which, goal }, controller.signal, setStanding));
    } catch (error) {
      if (!controller.signal.aborted) setWrong(Object.values(fieldErrors(error))[0] ?? said(error));
    }
    setStanding(null);
  }
  async function take() {
    if (found && (await onDo({ kind: "settle", setup, question: found.key, base: revision }))) onFound(null);
  }
  return (
    <>
      <Bar role="group" aria-label="Operations">
        {here && (
          <Button onPress={() => void look(here.id)} isDisabled={busy}>
            Settle {here.name}
          </Button>
        )}
        {list.items.length > 0 && (
          <>
            <Button onPress={() => void look(null)} isDisabled={busy}>
              Settle the set-up
            </Button>
            <Segments
              label="Settle for"
              value={goal}
              options={GOALS.filter((g) => money || g.value !== "cheapest")}
              onChange={(to) => setGoal(GOALS.find((g) => g.value === to)?.value ?? "quickest")}
              isDisabled={busy}
            />
          </>
        )}
        {here && place > 0 && <TextButton onPress={() => moveBehind(place - 2)}>earlier</TextButton>}
        {here && place < list.items.length - 1 && (
          <TextButton onPress={() => moveBehind(place + 1)}>later</TextButton>
        )}
        {here && (
          <TextButton onPress={() => void onDo({ kind: "split", path, base: revision })}>
            split into roughing and finishing
          </TextButton>
        )}
        <TextButton onPress={() => void onDo({ kind: "propose", setup, base: revision })}>
          {list.items.length > 0
            ? "propose all operations again from the profile"
            : "propose operations from the profile"}
        </TextButton>
        {busy && (
          <>
            <span role="status">Trying all combinations … {standingWords(standing)}</span>
            <TextButton onPress={() => asking.current?.abort()}>stop it</TextButton>
          </>
        )}
      </Bar>
      {wrong && <Wrong role="alert">{wrong}</Wrong>}
      {found && (
        <Found aria-label="What settling found" ref={inSight}>
          <h3>{found.answer.words}</h3>
          <Bar>
            {found.answer.gains ? (
              <>
                <Button onPress={() => void take()} isDisabled={found.answer.revision !== revision}>
                  Take it
                </Button>
                <TextButton onPress={() => onFound(null)}>leave it</TextButton>
              </>
            ) : (
              <TextButton onPress={() => onFound(null)}>nothing to gain: close</TextButton>
            )}
            {found.answer.revision !== revision && (
              <span role="status">
                Found for draft {found.answer.revision}, and the plan has changed since: settle it again.
              </span>
            )}
          </Bar>
        </Found>
      )}
    </>
  );
}
