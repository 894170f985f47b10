import { type ReactNode, useState } from "react";
import { Form } from "react-aria-components";
import { NavLink, useParams } from "react-router";
import styled from "styled-components";
import { fieldErrors, said, type Units } from "../../api/client";
import { dress } from "../../shared/quantity/dress";
import { SymbolKey } from "../../shared/quantity/SymbolKey";
import { Button } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { NoteBox } from "../../shared/ui/NoteBox";
import { AppHeader, Told } from "../../shared/ui/Page";
import { Picker } from "../../shared/ui/Picker";
import { Segments } from "../../shared/ui/Segments";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import {
  type CalcAnswer,
  type CalcEntry,
  type CalcField,
  type Calculator,
  useCalculate,
  useCalculators,
} from "./queries";

const Body = styled.main`
  display: grid;
  grid-template-columns: 15rem minmax(0, 1fr);
  @media ${fold.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const List = styled.nav`
  padding: ${space(4)} ${space(4)} ${space(12)};
  border-right: ${size.line} solid ${colour("hairline")};
  a {
    display: block;
    padding: ${space(1)} 0;
    color: ${colour("ink")};
    text-decoration: none;
  }
  a[aria-current="page"] {
    font-weight: 600;
    box-shadow: inset 0 -2px 0 ${colour("act")};
  }
`;

const Sheet = styled.section`
  padding: ${space(4)} ${space(5)} ${space(12)};
  > h2 {
    font-size: ${type.run};
    font-weight: 600;
  }
  > p {
    margin: ${space(1)} 0 ${space(4)};
    color: ${colour("soft")};
  }
`;

/** A choice with its name over it and its meaning below, as the entries beside it have them. */
const Choice = styled.div`
  span[aria-hidden] {
    display: block;
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  small {
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  p {
    font: 400 ${type.label}/1.3 ${face.narrow};
    color: ${colour("stop")};
  }
`;

const Fields = styled(Form)`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: ${space(3)} ${space(5)};
  align-items: start;
`;

const Ask = styled.div`
  grid-column: 1 / -1;
  display: flex;
  gap: ${space(4)};
  align-items: center;
`;

const Group = styled.h3`
  grid-column: 1 / -1;
  font: 600 ${type.label} ${face.narrow};
`;

const Answer = styled.div`
  display: grid;
  gap: ${space(2)};
  margin-top: ${space(5)};
  padding-top: ${space(4)};
  border-top: ${size.line} solid ${colour("ink")};
  table {
    border-collapse: collapse;
  }
  th,
  td {
    padding: ${space(1)} ${space(4)} ${space(1)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
    text-align: left;
    font-weight: 400;
    vertical-align: top;
  }
  td[data-figure] {
    font-weight: 600;
    font-variant-numeric: tabular-nums;
  }
  h3 {
    margin-top: ${space(3)};
    font: 600 ${type.label} ${face.narrow};
  }
`;

/** A figure of a step: as many digits as tell it from its neighbours. */
function digits(value: unknown): string {
  return typeof value === "number" ? String(Number(value.toPrecision(6))) : String(value);
}

type FieldProps = {
  field: CalcField;
  value: CalcEntry | undefined;
  error: string | undefined;
  onChange: (value: CalcEntry) => void;
};

function Field({ field, value, error, onChange }: FieldProps) {
  const label = `${field.label}${field.unit ? `, ${field.unit}` : ""}`;
  if (field.kind === "choice") {
    const options = Object.entries(field.options ?? {}).map(([v, l]) => ({ value: v, label: l }));
    const none = field.required ? [] : [{ value: "", label: `${field.label.toLowerCase()}: as usual` }];
    return (
      <Choice>
        <span aria-hidden>{field.label}</span>
        <Picker
          label={field.label}
          value={typeof value === "string" ? value : ""}
          options={[...none, ...options]}
          onChange={onChange}
        />
        {error ? <p role="alert">{error}</p> : <small>{field.help}</small>}
      </Choice>
    );
  }
  if (field.kind === "flag")
    return (
      <Segments
        label={field.label}
        value={value === true ? "yes" : "no"}
        options={[
          { value: "no", label: `${field.label}: no` },
          { value: "yes", label: "yes" },
        ]}
        onChange={(v) => onChange(v === "yes")}
      />
    );
  const usual = field.default === undefined ? "" : `usually ${digits(field.default)}`;
  return (
    <Entry
      label={label}
      hint={[field.help, usual].filter(Boolean).join("; ") || undefined}
      value={typeof value === "string" ? value : ""}
      error={error}
      onChange={onChange}
    />
  );
}

/** What was entered, without what was left empty. */
function given(fields: CalcField[], entries: Record<string, CalcEntry>): Record<string, CalcEntry> {
  const found: Record<string, CalcEntry> = {};
  for (const f of fields) {
    const value = entries[f.name];
    if (value === undefined || value === "") continue;
    if (typeof value !== "object") found[f.name] = value;
    else {
      const inner = given(f.fields ?? [], value);
      if (Object.keys(inner).length > 0) found[f.name] = inner;
    }
  }
  return found;
}

function One({ calculator }: { calculator: Calculator }) {
  const [entries, setEntries] = useState<Record<string, CalcEntry>>({});
  const [units, setUnits] = useState<Units>("metric");
  const ask = useCalculate(calculator.name);
  const errors = fieldErrors(ask.error);
  const put = (name: string, value: CalcEntry) => setEntries((all) => ({ ...all, [name]: value }));
  return (
    <Sheet>
      <h2>{calculator.name.replaceAll("-", " ")}</h2>
      <p>
        {calculator.summary} A bare figure is in the unit named; write another unit behind it, such as 1/2 in.
      </p>
      <Fields
        aria-label={calculator.name}
        onSubmit={(event) => {
          event.preventDefault();
          ask.mutate({ body: given(calculator.fields, entries), units });
        }}
      >
        {calculator.fields.map((f) =>
          f.kind === "group"
            ? [
                <Group key={f.name}>
                  {f.label}
                  {!f.required && ", where it is known"}
                </Group>,
                ...(f.fields ?? []).map((inner) => {
                  const all =
                    typeof entries[f.name] === "object" ? (entries[f.name] as Record<string, CalcEntry>) : {};
                  return (
                    <Field
                      key={`${f.name}.${inner.name}`}
                      field={inner}
                      value={all[inner.name]}
                      error={errors[`${f.name}.${inner.name}`]}
                      onChange={(value) => put(f.name, { ...all, [inner.name]: value })}
                    />
                  );
                }),
              ]
            : [
                <Field
                  key={f.name}
                  field={f}
                  value={entries[f.name]}
                  error={errors[f.name]}
                  onChange={(value) => put(f.name, value)}
                />,
              ],
        )}
        <Ask>
          <Button type="submit" isDisabled={ask.isPending}>
            Compute
          </Button>
          <Segments
            label="Answer in"
            value={units}
            options={[
              { value: "metric", label: "mm" },
              { value: "inch", label: "inch" },
            ]}
            onChange={(value) => {
              const next = value === "inch" ? "inch" : "metric";
              setUnits(next);
              if (ask.data) ask.mutate({ body: given(calculator.fields, entries), units: next });
            }}
          />
        </Ask>
      </Fields>
      {ask.error && (
        <Told role="alert">
          {Object.keys(errors).length > 0 ? Object.values(errors).join(" ") : said(ask.error)}
        </Told>
      )}
      {ask.data && !ask.error && <Result answer={ask.data} />}
    </Sheet>
  );
}

function Result({ answer }: { answer: CalcAnswer }) {
  return (
    <Answer aria-live="polite">
      {answer.notes.map((n) => (
        <NoteBox key={`${n.code} ${n.text}`} level={n.level}>
          {n.text}
        </NoteBox>
      ))}
      <table aria-label="Answer">
        <tbody>
          {answer.answers.map((a) => (
            <tr key={a.name}>
              <th scope="row">{a.label}</th>
              <td data-figure>{a.text}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h3>Working</h3>
      <table aria-label="Working">
        <tbody>
          {answer.working.map((s, i) => (
            <tr key={`${s.symbol} ${i}`}>
              <th scope="row">
                {s.symbol}, {s.label}
              </th>
              <td>
                {dress(s.formula)} = {dress(s.substituted)}
              </td>
              <td data-figure>
                {digits(s.value)} {s.unit}
              </td>
              <td>{s.source}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <SymbolKey steps={answer.working} />
    </Answer>
  );
}

/** Every calculator by itself: a question that belongs to no plan. */
export function CalculatorsScreen({ tools }: { tools: ReactNode }) {
  const { name } = useParams();
  const { data, isError } = useCalculators();
  const one = data?.find((c) => c.name === name) ?? data?.[0];
  return (
    <>
      <AppHeader title="Calculators" tools={tools} />
      <Body>
        <List aria-label="Calculators">
          {data?.map((c) => (
            <NavLink key={c.name} to={`/calculators/${c.name}`}>
              {c.name.replaceAll("-", " ")}
            </NavLink>
          ))}
        </List>
        {isError && <Told role="alert">The server does not answer.</Told>}
        {one && <One key={one.name} calculator={one} />}
      </Body>
    </>
  );
}
