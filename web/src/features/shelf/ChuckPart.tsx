import { Label, TextArea, TextField } from "react-aria-components";
import styled from "styled-components";
import type { ChuckChart } from "../../api/client";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { ChuckCurves } from "./ChuckCurves";

const Part = styled.section`
  margin-bottom: ${space(6)};
  h3 {
    margin-bottom: ${space(1)};
    font-size: ${type.title};
    font-weight: 600;
  }
  > p {
    margin-bottom: ${space(3)};
    font: 400 ${type.label}/1.35 ${face.narrow};
    color: ${colour("soft")};
  }
`;

const Side = styled.div`
  display: grid;
  grid-template-columns: 170px minmax(0, 1fr);
  gap: ${space(5)};
  @media ${fold.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const Columns = styled(TextField)`
  label {
    display: block;
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  textarea {
    width: 100%;
    height: 236px;
    padding: ${space(2)};
    background: ${colour("card")};
    border: ${size.line} solid ${colour("hairline")};
    border-bottom: ${size.thick} solid ${colour("act")};
    resize: vertical;
    line-height: 1.5;
    tab-size: 8;
  }
  textarea[data-invalid] {
    border-bottom-color: ${colour("stop")};
  }
`;

const Chart = styled.div`
  position: relative;
  height: 260px;
  background: ${colour("card")};
  border: ${size.line} solid ${colour("hairline")};
`;

const Meaning = styled.ul`
  margin-top: ${space(2)};
  font: 400 ${type.label}/1.45 ${face.narrow};
  b {
    font-weight: 600;
  }
`;

const Wrong = styled.p`
  && {
    margin: ${space(1)} 0 0;
    color: ${colour("stop")};
  }
  font: 400 ${type.label}/1.35 ${face.narrow};
`;

type Props = {
  chart: ChuckChart;
  text: string | null;
  mayEdit: boolean;
  errors: readonly string[];
  onType: (text: string) => void;
};

/** The chart of a chuck: typed or pasted as two columns, drawn as it is typed, and what it means higher up. */
export function ChuckPart({ chart, text, mayEdit, errors, onType }: Props) {
  return (
    <Part aria-label="Chart of grip against pressure">
      <h3>Grip against pressure</h3>
      <p>
        From the chuck’s book: total grip of all jaws at gauge pressures. Two columns, typed or pasted from a
        table. Between the points straight lines are taken; beyond them nothing is.
      </p>
      <Side>
        <div>
          <Columns
            value={text ?? chart.text}
            onChange={onType}
            isReadOnly={!mayEdit}
            isInvalid={errors.length > 0}
          >
            <Label>
              {chart.pressure_unit}, then {chart.grip_unit}
            </Label>
            <TextArea spellCheck={false} placeholder={"10\t25\n20\t50"} />
          </Columns>
        </div>
        <div>
          <Chart>
            <ChuckCurves chart={chart} />
          </Chart>
          <Meaning aria-label="What the chart means for grip at heights">
            {chart.curves.map((c) => (
              <li key={c.height}>
                Gripping <b>{c.where}</b>: {c.text}.
              </li>
            ))}
            {chart.curves.length === 0 && (
              <li>What grip is left at heights is shown once the force figures below are there.</li>
            )}
          </Meaning>
        </div>
      </Side>
      {errors.map((e) => (
        <Wrong key={e} role="alert">
          {e}
        </Wrong>
      ))}
    </Part>
  );
}
