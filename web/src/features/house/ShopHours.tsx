import { useState } from "react";
import { Form, Label, TextArea, TextField } from "react-aria-components";
import styled from "styled-components";
import { fieldErrors, Refused, said } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { FileButton } from "../../shared/ui/FileButton";
import { Told } from "../../shared/ui/Page";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { useCalendar, useChangeCalendar } from "./queries";

const Paste = styled(TextField)`
  label {
    display: block;
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  textarea {
    width: 100%;
    padding: ${space(2)};
    background: ${colour("card")};
    border: 0;
    border-bottom: ${size.thick} solid ${colour("act")};
    font: inherit;
  }
`;

const Lines = styled.dl`
  display: grid;
  grid-template-columns: 11rem minmax(0, 1fr);
  gap: ${space(1)} ${space(4)};
  dt {
    color: ${colour("soft")};
  }
`;

const Off = styled.ul`
  font: 400 ${type.label}/1.4 ${face.narrow};
  color: ${colour("soft")};
`;

/** When the shop works: shifts, breaks, hours without people, days off, and what another calendar brings. */
export function ShopHours() {
  const page = useCalendar();
  const change = useChangeCalendar();
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [pasted, setPasted] = useState("");
  const calendar = page.data;
  if (!calendar) return <h2>When the shop works</h2>;
  const errors = fieldErrors(change.error);
  const elsewhere = change.error && Object.keys(errors).length === 0 ? said(change.error) : errors[""];
  const stale = change.error instanceof Refused && change.error.status === 409;
  const keep = (values: Readonly<Record<string, string>>, file?: string) =>
    change.mutate(
      { base_number: calendar.number, values, ...(file !== undefined && { file }) },
      {
        onSuccess: () => {
          setTyped({});
          setPasted("");
        },
      },
    );
  const isChanged = Object.keys(typed).length > 0 || pasted.trim() !== "";
  return (
    <section aria-labelledby="hours">
      <h2 id="hours">When the shop works</h2>
      <p>
        Starts and finishes on the board and at Route go by this, for every plan at once.
        {calendar.changed && ` Changed by ${calendar.changed}.`}
      </p>
      {!calendar.may_edit ? (
        <Lines>
          {calendar.fields.map((f) => [
            <dt key={f.name}>{f.label}</dt>,
            <dd key={`${f.name}-text`}>{f.text || "none"}</dd>,
          ])}
        </Lines>
      ) : (
        <Form
          onSubmit={(event) => {
            event.preventDefault();
            keep(typed, pasted.trim() || undefined);
          }}
        >
          {calendar.fields.map((f) => (
            <Entry
              key={f.name}
              label={f.label}
              hint={f.help}
              value={typed[f.name] ?? f.text}
              error={errors[f.name]}
              onChange={(text) => setTyped((all) => ({ ...all, [f.name]: text }))}
            />
          ))}
          <Paste value={pasted} onChange={setPasted} isInvalid={Boolean(errors.file)}>
            <Label>Days off from another calendar: paste its iCalendar text, or choose its file</Label>
            <TextArea rows={3} spellCheck={false} placeholder="BEGIN:VCALENDAR …" />
          </Paste>
          <Told role="alert">{errors.file ?? elsewhere}</Told>
          <div>
            <FileButton
              label="Choose a file (.ics)"
              types={["text/calendar", ".ics"]}
              onText={(text) => keep(typed, text)}
            />{" "}
            {calendar.has_file && <Button onPress={() => keep({}, "")}>Take the other calendar out</Button>}{" "}
            {isChanged && (
              <>
                <Button type="submit">Keep these hours</Button>{" "}
                <Button
                  onPress={() => {
                    setTyped({});
                    setPasted("");
                    change.reset();
                  }}
                >
                  Put back
                </Button>
              </>
            )}{" "}
            {stale && <Button onPress={() => page.refetch()}>Look at the calendar again</Button>}
          </div>
        </Form>
      )}
      {calendar.off.length > 0 && (
        <>
          <h3>Off by the other calendar</h3>
          <Off>
            {calendar.off.map((off) => (
              <li key={`${off.name} ${off.begins}`}>
                {off.name || "off"}: {off.begins} to {off.ends}
              </li>
            ))}
            {calendar.off_count > calendar.off.length && (
              <li>and {calendar.off_count - calendar.off.length} more</li>
            )}
          </Off>
        </>
      )}
    </section>
  );
}
