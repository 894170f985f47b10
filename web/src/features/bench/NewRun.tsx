import { type ReactNode, useEffect, useState } from "react";
import { Form } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { fieldErrors, said } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
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

const Actions = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(3)} ${space(5)};
  align-items: center;
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
  outside: "",
  inside: "",
  stock_form: "slug",
  stock_diameter: "",
  stock_length: "",
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
  const inch = form.units === "inch";
  const unit = inch ? "in" : "mm";
  const send = (propose: boolean) =>
    make.mutate(form, {
      onSuccess: (made) =>
        void navigate(propose ? `/runs/${made.id}/sides` : `/runs/${made.id}`, { state: { propose } }),
    });
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
          Write what the print says. From that the set-ups are proposed: what holds the part, in which jaws,
          how hard, with which tools and figures. Only name and drawing number are needed: the plan says what
          else it lacks.
        </p>
        <Fields
          onSubmit={(event) => {
            event.preventDefault();
            send(true);
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
          <div data-whole>
            <Entry
              label="Outside, from one end to the other"
              value={form.outside}
              onChange={(outside) => put({ outside })}
              error={errors.outside}
              hint={`Steps as on the print, a semicolon between them, bare figures in ${unit}: ${
                inch ? "3.75 x .5; 2.5 h8 x 1 Ra 63" : "96 x 12; 64 h8 x 26 Ra 1.6"
              }`}
            />
          </div>
          <Entry
            label="Bore, from the first end"
            value={form.inside}
            onChange={(inside) => put({ inside })}
            error={errors.inside}
            hint={`${inch ? "1.5 H7" : "40 H7"} goes through; empty: none`}
          />
          <Entry
            label="Quantity"
            value={form.quantity}
            onChange={(quantity) => put({ quantity })}
            error={errors.quantity}
            hint="Pieces in the run"
          />
          <div data-whole>
            <Segments
              label="Stock"
              value={form.stock_form}
              options={[
                { value: "slug", label: "sawn slug" },
                { value: "bar", label: "bar" },
                { value: "casting", label: "casting or forging" },
              ]}
              onChange={(stock_form) => put({ stock_form })}
            />
          </div>
          <Entry
            label={`Stock diameter, ${unit}`}
            value={form.stock_diameter}
            onChange={(stock_diameter) => put({ stock_diameter })}
            error={errors.stock_diameter}
            hint="Nominal, as it comes to the lathe"
          />
          <Entry
            label={form.stock_form === "bar" ? `Bar length, ${unit}` : `Stock length, ${unit}`}
            value={form.stock_length}
            onChange={(stock_length) => put({ stock_length })}
            error={errors.stock_length}
            hint={
              form.stock_form === "bar"
                ? "As it goes into the spindle"
                : "What is over the part is stock on its faces, half each"
            }
          />
          <div data-whole>
            <Actions>
              <Button type="submit" isDisabled={make.isPending}>
                Propose the set-ups
              </Button>
              <TextButton onPress={() => send(false)} isDisabled={make.isPending}>
                put it on the bench as it is
              </TextButton>
            </Actions>
            <Told role="alert">{make.error && Object.keys(errors).length === 0 ? said(make.error) : ""}</Told>
          </div>
        </Fields>
        <ReadRun />
      </Column>
    </>
  );
}
