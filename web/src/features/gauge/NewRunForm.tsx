import { useRef, useState } from "react";
import { Form, Label, TextArea, TextField } from "react-aria-components";
import styled from "styled-components";
import { type ChuckGauge, fieldErrors, type GaugeRun, said, type Units } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { FileButton } from "../../shared/ui/FileButton";
import { Told } from "../../shared/ui/Page";
import { Picker } from "../../shared/ui/Picker";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { type NewRun, useNewGaugeRun } from "./queries";

const Fields = styled(Form)`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: ${space(3)} ${space(4)};
  align-items: start;
  > [data-wide] {
    grid-column: 1 / -1;
  }
  label {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  textarea {
    width: 100%;
    min-height: 120px;
    padding: ${space(2)};
    background: ${colour("card")};
    border: 0;
    border-bottom: ${size.thick} solid ${colour("act")};
    font: 400 ${type.body} ${face.plain};
  }
`;

const Labelled = styled.div`
  span:first-child {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
`;

const EMPTY: NewRun = {
  source: "typed",
  side: "od",
  on: "",
  pressure: "",
  height: "",
  jaw_mass: "",
  jaw_radius: "",
  jaw_set: "",
  note: "",
  readings: "",
};

const SIDES = [
  { value: "od", label: "outside" },
  { value: "id", label: "inside" },
];

type Props = {
  chuck: ChuckGauge;
  units: Units;
  onMade: (run: GaugeRun, gauge: string | null) => void;
};

/** A new gauge run: what the chuck was set to, and readings typed, pasted from a file, or read from a gauge. */
export function NewRunForm({ chuck, units, onMade }: Props) {
  const [given, setGiven] = useState(EMPTY);
  const add = useNewGaugeRun(chuck.key, units);
  // One key a run: what is sent again after a lost answer is taken in once.
  const key = useRef(crypto.randomUUID());
  const errors = fieldErrors(add.error);
  const put = (name: keyof NewRun) => (value: string) => setGiven((all) => ({ ...all, [name]: value }));
  const length = units === "metric" ? "mm" : "in";

  function send(source: NewRun["source"], gauge: string | null) {
    add.mutate(
      { ...given, source, key: key.current },
      {
        onSuccess: (run) => {
          key.current = crypto.randomUUID();
          setGiven(EMPTY);
          onMade(run, gauge);
        },
      },
    );
  }
  const elsewhere = add.error && Object.keys(errors).length === 0 ? said(add.error) : "";
  return (
    <Fields
      onSubmit={(event) => {
        event.preventDefault();
        send("typed", null);
      }}
    >
      <Entry
        label={`Gauge pressure, ${units === "metric" ? "bar" : "psi"}`}
        value={given.pressure}
        onChange={put("pressure")}
        error={errors.pressure}
      />
      <Entry
        label={`Gauge height, ${length}`}
        value={given.height}
        onChange={put("height")}
        error={errors.height}
        hint="above the guide"
      />
      <Labelled>
        <span>Gripped</span>
        <Picker label="Gripped" value={given.side} options={SIDES} onChange={put("side")} />
      </Labelled>
      <Labelled>
        <span>Jaw set</span>
        <Picker
          label="Jaw set"
          value={given.jaw_set}
          options={[{ value: "", label: "other jaws" }, ...chuck.jaw_sets]}
          onChange={put("jaw_set")}
        />
      </Labelled>
      <Entry
        label={`Top jaw, ${units === "metric" ? "kg" : "lb"}`}
        value={given.jaw_mass}
        onChange={put("jaw_mass")}
        error={errors.jaw_mass}
        hint="one jaw; empty: not known"
      />
      <Entry
        label={`Its centre, ${length}`}
        value={given.jaw_radius}
        onChange={put("jaw_radius")}
        error={errors.jaw_radius}
        hint="from the axis"
      />
      <Entry
        label="Day"
        value={given.on}
        onChange={put("on")}
        error={errors.on}
        hint={`such as ${chuck.today}; empty: today`}
      />
      <Entry label="Remark" value={given.note} onChange={put("note")} error={errors.note} />
      <div data-wide>
        <TextField value={given.readings} onChange={put("readings")}>
          <Label>Readings, typed or pasted from a CSV file</Label>
          <TextArea placeholder={"rpm; grip kN\n0; 66.2\n500; 65.1\n1000; 62.0"} />
        </TextField>
        <Told role="alert">{errors.readings ?? errors.side ?? errors.jaw_set ?? elsewhere}</Told>
      </div>
      <div data-wide>
        <Button type="submit">Take these readings in</Button>{" "}
        <FileButton label="From a CSV file" types={[".csv", ".txt", "text/csv"]} onText={put("readings")} />{" "}
        {chuck.gauges.map((gauge) => (
          <Button key={gauge} onPress={() => send("live", gauge)}>
            Read from {gauge}
          </Button>
        ))}
      </div>
    </Fields>
  );
}
