import styled from "styled-components";
import type { Units } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { PlannedAndReal } from "../../shared/ui/PlannedAndReal";
import { colour, face, space, type } from "../../shared/ui/theme";
import { moment } from "../../shared/words";
import { useLastTime } from "./machineQueries";

const Whole = styled.section`
  display: grid;
  gap: ${space(1)};
  margin-top: ${space(4)};
  h3 {
    font: 600 ${type.label} ${face.narrow};
  }
  p,
  summary,
  td,
  th {
    font: 400 ${type.label}/1.4 ${face.narrow};
    text-align: left;
  }
  td,
  th {
    padding: ${space(0.5)} ${space(3)} ${space(0.5)} 0;
    vertical-align: top;
  }
  summary {
    cursor: pointer;
  }
  small {
    font-size: inherit;
    color: ${colour("soft")};
  }
`;

type Props = {
  runId: number;
  units: Units;
  /** The plan's: what it counts already is not offered. */
  revision: number;
  /** Count in the plan what was seen; null for who may not change it. */
  onTake: ((path: string, value: number) => void) | null;
};

/** What was learnt of this part, or of its material, when it ran before; nothing where nothing was. */
export function LastTime({ runId, units, revision, onTake }: Props) {
  const { data: found } = useLastTime(runId, units, revision);
  if (!found || found.lessons.length + found.ran.length + found.taught.length === 0) return null;
  return (
    <Whole aria-label="Last time">
      <h3>Last time</h3>
      {found.lessons.map((l) => (
        <p key={`${l.at} ${l.text}`}>
          {l.text}{" "}
          <small>
            {l.part}
            {l.material && `, ${l.material}`}
            {l.machine && `, ${l.machine}`} · {l.by}, {moment(l.at)}
          </small>
        </p>
      ))}
      {found.taught.map((t) => (
        <p key={t.path}>
          {t.words} {onTake && <Button onPress={() => onTake(t.path, t.value)}>Count it in the plan</Button>}
        </p>
      ))}
      {found.ran.map((r) => (
        <details key={r.words}>
          <summary>How it ran: {r.words}</summary>
          <PlannedAndReal rows={r.rows} />
        </details>
      ))}
    </Whole>
  );
}
