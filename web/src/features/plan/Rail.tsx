import { useState } from "react";
import { Button } from "react-aria-components";
import { NavLink } from "react-router";
import styled from "styled-components";
import type { Plan, StopLine } from "../../api/client";
import { TextButton } from "../../shared/ui/Button";
import { Mark } from "../../shared/ui/Mark";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { counted } from "../../shared/words";
import type { Changes } from "./changes";
import { shortName, titleOf } from "./findable";

const Nav = styled.nav`
  display: flex;
  flex-direction: column;
  padding: ${space(4)} 0 0;
  border-right: ${size.line} solid ${colour("hairline")};
  overflow: auto;
  @media ${fold.phone} {
    position: sticky;
    top: 0;
    z-index: 2;
    max-height: 100vh;
    border-right: 0;
    border-bottom: ${size.line} solid ${colour("ink")};
    padding-top: 0;
    background: ${colour("sheet")};
    &:not([data-open]) > :not(:first-child) {
      display: none;
    }
  }
`;

/** On a phone the rail is this line, which opens the rest. */
const OneLine = styled(Button)`
  display: none;
  @media ${fold.phone} {
    display: grid;
    grid-template-columns: ${size.mark} 1fr auto;
    gap: 0 ${space(3)};
    align-items: center;
    min-height: 52px;
    padding: ${space(1)} ${space(4)};
    background: none;
    border: 0;
    text-align: left;
    cursor: pointer;
    b {
      font-weight: 600;
    }
    small {
      display: block;
      font: 400 ${type.small}/1.2 ${face.narrow};
      color: ${colour("soft")};
    }
    > span:last-child {
      color: ${colour("act")};
      text-decoration: underline;
      text-underline-offset: 3px;
    }
  }
`;

const Side = styled.p`
  margin: 0 0 ${space(1)} ${space(12)};
  font: 600 ${type.small} ${face.narrow};
  color: ${colour("soft")};
`;

const Stops = styled.ol`
  position: relative;
  &::before {
    content: "";
    position: absolute;
    top: ${space(5)};
    bottom: ${space(5)};
    left: 27px;
    border-left: ${size.thick} solid ${colour("ink")};
  }
`;

const Link = styled(NavLink)`
  position: relative;
  display: grid;
  grid-template-columns: ${size.mark} 1fr;
  gap: 0 ${space(3)};
  align-items: center;
  min-height: 54px;
  padding: ${space(1.5)} ${space(2)} ${space(1.5)} ${space(4.75)};
  color: ${colour("ink")};
  text-decoration: none;
  &[aria-current="page"] {
    background: ${colour("card")};
    box-shadow:
      inset 3px 0 0 ${colour("act")},
      0 1px 0 ${colour("hairline")},
      0 -1px 0 ${colour("hairline")};
  }
  &:hover b {
    color: ${colour("act")};
  }
  &:focus-visible {
    outline-offset: -2px;
  }
  b {
    font-weight: 600;
  }
  small {
    grid-column: 2;
    font: 400 ${type.small}/1.2 ${face.narrow};
    color: ${colour("soft")};
  }
  small[data-moved] {
    color: ${colour("pointInk")};
  }
  small[data-state="stopped"] {
    color: ${colour("stop")};
  }
  em {
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  em[data-state="stopped"] {
    color: ${colour("stop")};
    font-weight: 600;
  }
  > svg {
    grid-row: 1;
  }
`;

const Carry = styled.section`
  margin-top: auto;
  padding: ${space(3)} ${space(4.75)} ${space(4)};
  border-top: ${size.line} solid ${colour("ink")};
  h2 {
    margin-bottom: ${space(1)};
    font: 600 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0 ${space(2)};
    align-items: baseline;
  }
  dt {
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  dd {
    font-weight: 600;
    text-align: right;
    white-space: nowrap;
  }
  dd[data-moved] {
    color: ${colour("pointInk")};
  }
  dd[data-wrong] {
    color: ${colour("stop")};
  }
  dd small {
    display: block;
    font: 400 ${type.small} ${face.narrow};
  }
  summary {
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("act")};
    cursor: pointer;
  }
  @media ${fold.phone} {
    position: sticky;
    bottom: 0;
    background: ${colour("sheet")};
  }
`;

/** A side that is not in view: one line with the marks of its stops. */
const Folded = styled(Link)`
  grid-template-columns: 1fr;
  padding-left: ${space(12)};
  > span:last-child {
    display: flex;
    gap: ${space(2)};
    align-items: center;
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  svg {
    width: 14px;
    height: 14px;
  }
`;

type Carried = Plan["sides"][number]["carry"][number];

/** The clamp of one cut: there is one for each where any cut has its own. */
function isOfCut(carried: Carried): boolean {
  return carried.name.startsWith("clamp_");
}

/** Figures with their names; what is wrong with one stands under it. */
function Figures({ figures, of, changes }: { figures: readonly Carried[]; of: string; changes: Changes }) {
  return (
    <dl>
      {figures.map(({ name, label, text, warning }) => (
        <div key={name} style={{ display: "contents" }}>
          <dt>{isOfCut({ name, label, text, warning }) ? label.replace("Clamp, ", "") : label}</dt>
          <dd
            data-moved={changes.has(`carry:${of}:${name}`) || undefined}
            data-wrong={warning !== null || undefined}
          >
            {text ?? "not known"}
            {warning !== null && <small>{warning}</small>}
          </dd>
        </div>
      ))}
    </dl>
  );
}

const ToLookAt = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 ${space(2)};
  align-items: center;
  margin: 0 ${space(2)} ${space(1)} ${space(12)};
  font: 400 ${type.small} ${face.narrow};
  color: ${colour("pointInk")};
`;

/** What of a side was proposed, and the press that says it was looked at. */
function Proposed({
  side,
  onLooksRight,
}: {
  side: Plan["sides"][number];
  onLooksRight: Props["onLooksRight"];
}) {
  if (!side.proposed) return null;
  return (
    <ToLookAt>
      <span>{counted(side.proposed, "value")} proposed</span>
      {onLooksRight && (
        <TextButton onPress={() => onLooksRight(side.id)} aria-label={`${side.title} looks right`}>
          looks right
        </TextButton>
      )}
    </ToLookAt>
  );
}

type Props = {
  plan: Plan;
  side: number;
  /** The key of the stop in view. */
  at: string;
  changes: Changes;
  search?: string;
  /** Somebody has looked at what was proposed of a side; null where nobody may say so. */
  onLooksRight?: ((setup: string) => void) | null;
};

/** The route: the part's stops, then the stops of the side in view, and the figures to carry to the machine. */
export function Rail({ plan, side, at, changes, search = "", onLooksRight = null }: Props) {
  const inView = plan.sides[side] ?? plan.sides[0];
  const [opened, setOpened] = useState("");
  const isOpen = opened === at;
  const here = plan.stops.find((s) => s.key === at);
  const ofCuts = (inView?.carry ?? []).filter(isOfCut);
  const item = (stop: StopLine) => (
    <li key={stop.key}>
      <Link
        to={{ pathname: `/runs/${plan.run.id}/${stop.key}`, search }}
        aria-current={stop.key === at ? "page" : undefined}
      >
        <Mark state={stop.state} />
        <span>
          <b>{stop.title}</b> {stop.state !== "settled" && <em data-state={stop.state}>{stop.state}</em>}
        </span>
        <small data-state={stop.state} data-moved={changes.has(`stop:${stop.key}`) || undefined}>
          {stop.line}
        </small>
      </Link>
    </li>
  );
  // Of the whole part: what comes before its sides, and what rests on all of them.
  const ofSides = plan.stops.findIndex((s) => s.side !== null);
  const before = plan.stops.filter((s, i) => s.side === null && (ofSides < 0 || i < ofSides));
  const behind = plan.stops.filter((s) => s.side === null && !before.includes(s));
  const heading = (s: Plan["sides"][number]) =>
    // Its own name says more than its number does.
    s.title === `Side ${s.index + 1}` ? (plan.sides.length > 1 ? `${s.title}, ${s.end}` : s.end) : s.title;
  return (
    <Nav aria-label="Stops of the plan" data-open={isOpen || undefined}>
      <OneLine aria-expanded={isOpen} onPress={() => setOpened(isOpen ? "" : at)}>
        {here && <Mark state={here.state} />}
        <span>
          <b>{here && titleOf(plan, here)}</b>
          <small>{here?.line}</small>
        </span>
        <span>{isOpen ? "close" : "all stops"}</span>
      </OneLine>
      <Stops>
        {before.map(item)}
        {plan.sides.map((s) => {
          const stops = plan.stops.filter((x) => x.side === s.index);
          if (s.id === inView?.id)
            return [
              <li key={`side ${s.id}`}>
                <Side>{heading(s)}</Side>
                <Proposed side={s} onLooksRight={onLooksRight} />
              </li>,
              ...stops.map(item),
            ];
          const [first] = stops;
          return (
            first && (
              <li key={`side ${s.id}`}>
                <Folded to={{ pathname: `/runs/${plan.run.id}/${first.key}`, search }}>
                  <span>
                    <b>{heading(s)}</b>
                  </span>
                  <span>
                    {stops.map((x) => (
                      <Mark key={x.key} state={x.state} />
                    ))}
                    {s.verdict}
                  </span>
                </Folded>
                <Proposed side={s} onLooksRight={onLooksRight} />
              </li>
            )
          );
        })}
        {behind.length > 0 && plan.sides.length > 0 && (
          <li>
            <Side>All sides</Side>
          </li>
        )}
        {behind.map(item)}
      </Stops>
      <Carry aria-label="To carry to the machine">
        <h2>
          {plan.sides.length > 1 && inView
            ? `To the machine, ${shortName(inView)}`
            : "To carry to the machine"}
        </h2>
        {inView && (
          <Figures figures={inView.carry.filter((c) => !isOfCut(c))} of={inView.id} changes={changes} />
        )}
        {ofCuts.length > 0 && inView && (
          <details open={ofCuts.some((c) => c.warning !== null) || undefined}>
            <summary>Clamps, a cut each ({ofCuts.length})</summary>
            <Figures figures={ofCuts} of={inView.id} changes={changes} />
          </details>
        )}
      </Carry>
    </Nav>
  );
}
