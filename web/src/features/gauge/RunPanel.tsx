import styled from "styled-components";
import { type GaugeRun, said } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { Told } from "../../shared/ui/Page";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { GaugeChart } from "./GaugeChart";
import { useKeepGaugeRun, useLeaveOut, useRemoveGaugeRun } from "./queries";

const Panel = styled.section`
  display: grid;
  gap: ${space(3)};
  dl {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
    gap: ${space(2)} ${space(4)};
  }
  dt {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  dd {
    font-weight: 600;
  }
`;

export const Canvas = styled.div`
  position: relative;
  height: 380px;
  background: ${colour("card")};
  border: ${size.line} solid ${colour("hairline")};
`;

const Caution = styled.p`
  padding-left: ${space(3)};
  box-shadow: inset 6px 0 0 ${colour("caution")};
`;

type Props = { run: GaugeRun; mayNote: boolean; onGone: () => void };

/** One run: points, curve and residuals, what is said about the fit, and letting plans count with it. */
export function RunPanel({ run, mayNote, onGone }: Props) {
  const leave = useLeaveOut(run.id);
  const keep = useKeepGaugeRun();
  const remove = useRemoveGaugeRun();
  const out = run.readings.filter((r) => r.left_out).map((r) => r.number);
  const error = leave.error ?? keep.error ?? remove.error;
  const open = mayNote && !run.kept;
  return (
    <Panel aria-label="Gauge run">
      <Canvas>
        <GaugeChart spots={run.readings} curve={run.curve} outliers={run.outliers} unit={run.unit} />
      </Canvas>
      <dl>
        <div>
          <dt>Readings</dt>
          <dd>{run.total}</dd>
        </div>
        {run.figures.map((f) => (
          <div key={f.label}>
            <dt>{f.label}</dt>
            <dd>{f.text}</dd>
          </div>
        ))}
        {run.kept && (
          <div>
            <dt>Condition: measured over book</dt>
            <dd>{run.condition}</dd>
          </div>
        )}
      </dl>
      {run.problem && <Caution>{run.problem}</Caution>}
      {run.notes.map((n) => (
        <Caution key={n.code}>{n.text}</Caution>
      ))}
      <Told role="alert">{error ? said(error) : ""}</Told>
      {open && (
        <p>
          {run.usable && <Button onPress={() => keep.mutate(run.id)}>Let plans count with it</Button>}{" "}
          {run.outliers.length > 0 && (
            <TextButton onPress={() => leave.mutate({ numbers: run.outliers, left_out: true })}>
              leave the outliers out
            </TextButton>
          )}{" "}
          {out.length > 0 && (
            <TextButton onPress={() => leave.mutate({ numbers: out, left_out: false })}>
              take {out.length} in again
            </TextButton>
          )}{" "}
          <TextButton onPress={() => remove.mutate(run.id, { onSuccess: onGone })}>throw it away</TextButton>
        </p>
      )}
    </Panel>
  );
}
