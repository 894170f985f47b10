import { useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import { fieldErrors, type NotebookPage, said, type Units } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { Told } from "../../shared/ui/Page";
import { Picker } from "../../shared/ui/Picker";
import { colour, size, space } from "../../shared/ui/theme";
import { useWriteCut } from "./queries";

const Fields = styled(Form)`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: ${space(3)} ${space(5)};
  align-items: end;
  margin-bottom: ${space(5)};
  padding-bottom: ${space(4)};
  border-bottom: ${size.line} solid ${colour("hairline")};
`;

/** A proven cut by hand: every field, what is wrong told at it. */
export function NewCut({ page, units, onDone }: { page: NotebookPage; units: Units; onDone: () => void }) {
  const [fields, setFields] = useState<Record<string, string>>({ kind: "turn", stage: "both" });
  const write = useWriteCut(units);
  const errors = fieldErrors(write.error);
  const put = (name: string) => (value: string) => setFields((all) => ({ ...all, [name]: value }));
  return (
    <Fields
      aria-label="A proven cut"
      onSubmit={(event) => {
        event.preventDefault();
        write.mutate(fields, { onSuccess: onDone });
      }}
    >
      {page.fields.map((f) =>
        f.options ? (
          <Picker
            key={f.name}
            label={f.label}
            value={fields[f.name] ?? ""}
            options={f.options.map((o) => ({
              ...o,
              label: o.value === "" ? `${f.label.toLowerCase()}: ${o.label}` : o.label,
            }))}
            onChange={put(f.name)}
          />
        ) : (
          <Entry
            key={f.name}
            label={`${f.label}${f.unit ? `, ${f.unit}` : ""}`}
            hint={f.required ? undefined : f.help}
            value={fields[f.name] ?? ""}
            error={errors[f.name]}
            onChange={put(f.name)}
          />
        ),
      )}
      <Button type="submit" isDisabled={write.isPending}>
        Write it down
      </Button>
      <TextButton onPress={onDone}>leave it</TextButton>
      {write.error && Object.keys(errors).length === 0 && <Told role="alert">{said(write.error)}</Told>}
    </Fields>
  );
}
