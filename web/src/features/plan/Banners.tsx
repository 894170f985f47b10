import { Link } from "react-router";
import styled from "styled-components";
import type { Plan } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { colour, size, space } from "../../shared/ui/theme";
import type { EntryValue } from "./queries";

const Banner = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(2)} ${space(4)};
  align-items: center;
  padding: ${space(2)} ${space(4.5)};
  border-bottom: ${size.line} solid ${colour("hairline")};
  background: ${colour("card")};
  box-shadow: inset 6px 0 0 ${colour("caution")};
`;

type Props = {
  plan: Plan;
  /** An earlier state is looked at. */
  past: boolean;
  stop: string;
  mayPlan: boolean;
  onKeep: (path: string, entry: EntryValue) => void;
};

/** What must be known of the whole plan before anything in it is read. */
export function Banners({ plan, past, stop, mayPlan, onKeep }: Props) {
  const runId = plan.run.id;
  const { rules } = plan;
  return (
    <div>
      {past && (
        <Banner role="status">
          <span>
            {plan.release
              ? `Release ${plan.release.number}, draft ${plan.release.revision}, as ${plan.release.by} released it. `
              : `Draft ${plan.at} as it was, computed with today’s shelf. `}
            Nothing here can be changed.
          </span>
          <Link to={`/runs/${runId}/history`}>to the history</Link>
          <Link to={`/runs/${runId}/${stop}`}>to the plan as it is</Link>
        </Banner>
      )}
      {!past && plan.run.put_away && (
        <Banner role="status">
          <span>This run is put away. Bring it back to the bench to change it.</span>
          {mayPlan && <Button onPress={() => onKeep("put_away", { value: false })}>Bring it back</Button>}
        </Banner>
      )}
      {rules && rules.number !== rules.today && (
        <Banner role="status">
          <span>
            Computed under <Link to="/rules">house rules</Link> {rules.number}; today’s are {rules.today}:{" "}
            {rules.changes.join("; ") || "no figure differs"}.{" "}
            {rules.moves.length > 0
              ? `Under today’s: ${rules.moves.join("; ")}.`
              : "Under today’s no headline figure moves."}
          </span>
          {mayPlan && !plan.run.put_away && (
            <Button onPress={() => onKeep("rules", { value: "today" })}>Take today’s rules</Button>
          )}
        </Banner>
      )}
    </div>
  );
}
