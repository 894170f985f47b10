import { type ReactNode, useEffect, useState } from "react";
import { Form } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { fieldErrors, said } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { AppHeader, Column, Told } from "../../shared/ui/Page";
import { Picker } from "../../shared/ui/Picker";
import { Segments } from "../../shared/ui/Segments";
import { colour, face, fold, space, type } from "../../shared/ui/theme";
import { type NewRunForm, useNewRun, useShelfChoices } from "./queries";
import { ReadRun } from "./ReadRun";

const Fields = styled(Form)`
  && {
    grid-template-columns: 1fr 1fr;
    gap: ${space(5)} ${space(6)};
    align-items: start;
    justify-items: stretch;
  }
  > [data-whole] {
    grid-column: 1 / -1;
  }
  @media ${fold.phone} {
    && {
      grid-template-columns: 1fr;
    }
  }
`;

const Chosen = styled.div`
  span {
    display: block;
    margin-bottom: ${space(2.5)};
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  p {
    font: 400 ${type.label}/1.3 ${face.narrow};
    color: ${colour("stop")};
  }
`;

const EMPTY: NewRunForm = {
  name: "",
  drawing_number: "",
  machine: null,
  material: null,
  diameter: "",
  length: "",
  quantity: "",
  units: "metric",
};

/** A new run: what a setter knows first. What is left open is asked for in the plan. */
export function NewRun({ tools }: { tools: ReactNode }) {
  const [form, setForm] = useState(EMPTY);
  const shelf = useShelfChoices();
  const make = useNewRun();
  const navigate = useNavigate();
  const errors = fieldErrors(make.error);
  const put = (part: Partial<NewRunForm>) => setForm((all) => ({ ...all, ...part }));
  const unit = form.units === "inch" ? "in" : "mm";
  useEffect(() => {
    document.title = "New run · Noble Anvil";
  }, []);
  const choose = (kind: "machine" | "material", label: string) => {
    const items = shelf.data?.find((k) => k.kind === kind)?.items ?? [];
    return (
      <Chosen>
        <span aria-hidden="true">{label}</span>
        <Picker
          label={label}
          value={form[kind]}
          options={items.map((i) => ({ value: i.key, label: i.name }))}
          onChange={(key) => put({ [kind]: key })}
        />
        {errors[kind] && <p role="alert">{errors[kind]}</p>}
      </Chosen>
    );
  };
  return (
    <>
      <AppHeader title="New run" tools={tools} />
      <Column>
        <h2>New run</h2>
        <p>
          Write what you know now. Only name and drawing number are needed: the plan says what else it lacks,
          and computes the rest.
        </p>
        <Fields
          onSubmit={(event) => {
            event.preventDefault();
            make.mutate(form, { onSuccess: (made) => void navigate(`/runs/${made.id}`) });
          }}
        >
          <Entry
            label="Name"
            value={form.name}
            onChange={(name) => put({ name })}
            error={errors.name}
            hint="What the shop calls the part"
            autoFocus
          />
          <Entry
            label="Drawing number"
            value={form.drawing_number}
            onChange={(drawing_number) => put({ drawing_number })}
            error={errors.drawing_number}
          />
          {choose("machine", "Machine")}
          {choose("material", "Material")}
          <div data-whole>
            <Segments
              label="Units of the plan"
              value={form.units}
              options={[
                { value: "metric", label: "mm" },
                { value: "inch", label: "inch" },
              ]}
              onChange={(units) => put({ units: units === "inch" ? "inch" : "metric" })}
            />
          </div>
          <Entry
            label={`Diameter, ${unit}`}
            value={form.diameter}
            onChange={(diameter) => put({ diameter })}
            error={errors.diameter}
            hint="Finished, where the jaws will hold"
          />
          <Entry
            label={`Length, ${unit}`}
            value={form.length}
            onChange={(length) => put({ length })}
            error={errors.length}
            hint="Plain, along the axis"
          />
          <Entry
            label="Quantity"
            value={form.quantity}
            onChange={(quantity) => put({ quantity })}
            error={errors.quantity}
            hint="Pieces in the run"
          />
          <div data-whole>
            <Button type="submit">Put it on the bench</Button>
            <Told role="alert">{make.error && Object.keys(errors).length === 0 ? said(make.error) : ""}</Told>
          </div>
        </Fields>
        <ReadRun />
      </Column>
    </>
  );
}
