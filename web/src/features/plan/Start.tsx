import { Link } from "react-router";
import styled from "styled-components";
import type { Plan } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { colour, space } from "../../shared/ui/theme";
import { stopOf } from "./places";
import type { Starting } from "./useStart";

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(2)} ${space(4)};
  align-items: center;
  padding: ${space(2)} ${space(1)};
  p {
    flex: 1 1 16rem;
    margin: 0;
    color: ${colour("soft")};
  }
`;

const Wrong = styled.ul`
  flex-basis: 100%;
  color: ${colour("stop")};
`;

/** The press that proposes the set-ups, and what it lacks: each as a way to the fact. */
export function Start({ start, plan }: { start: Starting; plan: Plan }) {
  if (!plan.may_edit || plan.at !== null) return null;
  const left = plan.sides.some((s) => s.proposed);
  return (
    <Bar role="group" aria-label="Set-ups">
      <Button onPress={start.propose} isDisabled={start.isBusy}>
        {left ? "Propose the set-ups again" : "Propose the set-ups"}
      </Button>
      <p>
        Sides, grip, jaws or collet, pressure, operations, tools and cuts, settled together. What somebody has
        decided stays as it is.
      </p>
      {Object.keys(start.wrong).length > 0 && (
        <Wrong role="alert">
          {Object.entries(start.wrong).map(([path, message]) => (
            <li key={path}>
              {message}{" "}
              {path && (
                <Link to={`/runs/${plan.run.id}/${stopOf(path, plan) ?? "part"}#${path}`}>go there</Link>
              )}
            </li>
          ))}
        </Wrong>
      )}
    </Bar>
  );
}
