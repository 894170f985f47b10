import { useState } from "react";
import { Input, Label } from "react-aria-components";
import styled from "styled-components";
import { type RunningDimension, type RunningPage, said } from "../../api/client";
import { TextButton } from "../../shared/ui/Button";
import { HandField } from "../../shared/ui/HandField";
import { space } from "../../shared/ui/theme";
import { Hand, Row, Soft, Wrong } from "./hand";
import { readInstrument } from "./queries";

const Form = styled.div`
  display: grid;
  gap: ${space(3)};
`;

const Field = styled(HandField)`
  input {
    font-weight: 600;
  }
`;

const THREAD = [
  { value: "good", words: "both as they should" },
  { value: "tight", words: "GO does not go on" },
  { value: "loose", words: "NOT GO enters" },
] as const;

export type Entries = Record<string, string>;

type Props = {
  page: RunningPage;
  entries: Entries;
  temp: string;
  wrong: Record<string, string>;
  onEnter: (dimension: string, value: string, instrument: string) => void;
  onTemp: (value: string) => void;
};

const KINDS: Record<string, string> = { size: "size", finish: "", thread: "" };

/** What is measured of a piece: what is due first, the rest where it is asked for. */
export function MeasureForm({ page, entries, temp, wrong, onEnter, onTemp }: Props) {
  const [all, setAll] = useState(false);
  const due = page.standing.check?.pieces === 0 ? page.standing.check.dimensions : [];
  const shown = page.standing.dimensions.filter((d) => all || due.length === 0 || due.includes(d.id));
  const rest = page.standing.dimensions.length - shown.length;
  return (
    <Form>
      {shown.map((d) => (
        <One
          key={d.id}
          page={page}
          dimension={d}
          value={entries[d.id] ?? ""}
          wrong={wrong[d.id]}
          onEnter={onEnter}
        />
      ))}
      <Soft>In the chuck only with the spindle stopped; deburred and wiped.</Soft>
      {rest > 0 && <TextButton onPress={() => setAll(true)}>{`measure ${rest} more`}</TextButton>}
      {shown.some((d) => d.kind === "size") && (
        <Field value={temp} onChange={onTemp} isDisabled={!page.may_mark} isInvalid={Boolean(wrong.temp_c)}>
          <Label>How warm the piece is</Label>
          <span>
            <Input autoComplete="off" inputMode="decimal" /> °C
          </span>
          {wrong.temp_c && <Wrong role="alert">{wrong.temp_c}</Wrong>}
        </Field>
      )}
    </Form>
  );
}

type OneProps = {
  page: RunningPage;
  dimension: RunningDimension;
  value: string;
  wrong: string | undefined;
  onEnter: Props["onEnter"];
};

function One({ page, dimension, value, wrong, onEnter }: OneProps) {
  const [reading, setReading] = useState("");
  const [failed, setFailed] = useState("");
  const instruments = page.instruments.filter((i) => i.kind === KINDS[dimension.kind]);
  const read = async (name: string) => {
    setReading(name);
    setFailed("");
    try {
      onEnter(dimension.id, await readInstrument(name, page.units), name);
    } catch (error) {
      setFailed(said(error));
    } finally {
      setReading("");
    }
  };
  if (dimension.kind === "thread")
    return (
      <div>
        <Soft>{dimension.title}</Soft>
        <Row role="group" aria-label={dimension.title}>
          {THREAD.map((t) => (
            <Hand
              key={t.value}
              disabled={!page.may_mark}
              aria-pressed={value === t.value}
              onClick={() => onEnter(dimension.id, value === t.value ? "" : t.value, "")}
            >
              {t.words}
            </Hand>
          ))}
        </Row>
        {wrong && <Wrong role="alert">{wrong}</Wrong>}
      </div>
    );
  return (
    <div>
      <Row>
        <Field
          value={value}
          onChange={(v) => onEnter(dimension.id, v, "")}
          isDisabled={!page.may_mark}
          isInvalid={Boolean(wrong)}
        >
          <Label>{dimension.title}</Label>
          <span>
            <Input autoComplete="off" inputMode="text" /> {dimension.unit}
          </span>
        </Field>
        {page.may_mark &&
          instruments.map((i) => (
            <Hand key={i.name} disabled={reading !== ""} onClick={() => void read(i.name)}>
              {reading === i.name ? "reading …" : `read ${i.name}`}
            </Hand>
          ))}
      </Row>
      <Soft>{dimension.expected}</Soft>
      {(wrong ?? failed) && <Wrong role="alert">{wrong ?? failed}</Wrong>}
    </div>
  );
}
