import type { ReactNode } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Plan, Units } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Header, HeaderNote, HeaderPlate, HeaderSide, HeaderTitle, Places } from "../../shared/ui/Page";
import { Segments } from "../../shared/ui/Segments";
import { fold, space } from "../../shared/ui/theme";
import { counted } from "../../shared/words";

const Group = styled.div`
  display: flex;
  gap: ${space(1)};
  @media ${fold.phone} {
    button,
    a {
      padding-inline: ${space(2)};
    }
  }
`;

function keptAt(plan: Plan): string {
  const at = new Date(plan.run.changed_at);
  return at.toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" });
}

type Props = {
  plan: Plan;
  units: Units;
  tools: ReactNode;
  onUnits: (units: Units) => void;
  onUndo: () => void;
  onRedo: () => void;
  onHelp: () => void;
};

/** Whether what is on the screen is for the machine, and the way to its releases. */
function Standing({ plan }: { plan: Plan }) {
  const { release, run } = plan;
  const is = release !== null && release.revision === (plan.at ?? plan.revision);
  const said = is ? (
    <b>
      release {release.number}
      <span data-room>, for the machine</span>
    </b>
  ) : (
    <b>
      not for the machine
      {release && `; release ${release.number} is`}
    </b>
  );
  // Who looks at what was, or sees releases alone, has nothing to release.
  return plan.at !== null ? (
    said
  ) : (
    <Link to={`/runs/${run.id}/releases`} title="Release it, and what was released before">
      {said}
    </Link>
  );
}

/** Which plan this is and how it stands; undo, units, keys. */
export function PlanHeader({ plan, units, tools, onUnits, onUndo, onRedo, onHelp }: Props) {
  const { run } = plan;
  return (
    <Header>
      <Link to="/">Noble Anvil</Link>
      <Places aria-label="Places">
        <Link to="/shelf">Shelf</Link>
        <Link to="/notebook">Notebook</Link>
      </Places>
      <HeaderPlate>
        <HeaderTitle>
          {run.name} <span>{run.drawing_number}</span>
        </HeaderTitle>
        <HeaderNote>
          <span data-detail>
            {run.quantity == null ? "no quantity" : counted(run.quantity, "piece")} ·{" "}
            {run.machine || "no machine"} ·{" "}
          </span>
          <Link to={`/runs/${run.id}/history`} title="What was changed, by whom, and earlier drafts">
            draft {plan.at ?? plan.revision}
          </Link>
          {plan.at === null && <span data-detail>, kept {keptAt(plan)}</span>} · <Standing plan={plan} />
          {plan.release && (
            <>
              {" "}
              · <Link to={`/runs/${run.id}/card`}>card</Link>
            </>
          )}
        </HeaderNote>
      </HeaderPlate>
      <HeaderSide>
        <Group>
          <Button isDisabled={!plan.undo} onPress={onUndo}>
            Undo
          </Button>
          <Button isDisabled={!plan.redo} onPress={onRedo}>
            Redo
          </Button>
        </Group>
        <Segments
          label="Units"
          value={units}
          options={[
            { value: "metric", label: "mm" },
            { value: "inch", label: "inch" },
          ]}
          onChange={(value) => onUnits(value === "inch" ? "inch" : "metric")}
        />
        <Button onPress={onHelp} aria-label="Keyboard shortcuts">
          ?
        </Button>
        {tools}
      </HeaderSide>
    </Header>
  );
}
