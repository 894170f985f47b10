import type { ClipboardEvent } from "react";
import styled from "styled-components";
import { Button, TextButton } from "../../shared/ui/Button";
import { Picker } from "../../shared/ui/Picker";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { type Field, type Given, type Path, pasted, rowsOf } from "./draft";
import type { Draft } from "./useDraft";

const Sheet = styled.div`
  overflow-x: auto;
  table {
    border-collapse: collapse;
  }
  th {
    padding-right: ${space(3)};
    text-align: left;
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  td {
    padding: 0 ${space(3)} ${space(1)} 0;
    vertical-align: top;
  }
  input:not([type="checkbox"]),
  textarea {
    width: 7.5rem;
    height: 36px;
    padding: 0 ${space(2)};
    background: ${colour("card")};
    border: 0;
    border-bottom: ${size.thick} solid ${colour("act")};
    font: inherit;
    font-variant-numeric: tabular-nums;
  }
  input[type="checkbox"] {
    width: 24px;
    height: 24px;
    margin: 6px;
    accent-color: ${colour("act")};
  }
  input[data-text] {
    width: 10rem;
  }
  textarea {
    width: 100%;
    max-width: 24rem;
    height: auto;
    padding: ${space(2)};
    line-height: 1.4;
    resize: vertical;
  }
  [aria-invalid="true"] {
    border-bottom-color: ${colour("stop")};
  }
  p {
    font: 400 ${type.label}/1.3 ${face.narrow};
    color: ${colour("stop")};
  }
  small {
    display: block;
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
`;

type Props = { field: Field; path: Path; draft: Draft; errors: Record<string, string> };

/** What is wrong with a list as a whole, or with one of its lines. */
const wrongIn = (errors: Record<string, string>, path: Path) => {
  const at = path.join(".");
  return Object.entries(errors).filter(([name]) => name === at || name.startsWith(`${at}.`));
};

/** A list of figures or words, one a line: typed, or pasted as they are copied. */
export function Lines({ field, path, draft, errors }: Props) {
  const rows = draft.rows(path);
  const value = rows.map((_, i) => String(draft.text([...path, i]))).join("\n");
  const wrong = wrongIn(errors, path);
  const keep = (text: string) => {
    const lines = text.split(/[\n\t;]/).map((one) => one.trim());
    draft.set(path, text === "" ? undefined : lines);
  };
  return (
    <Sheet>
      <textarea
        aria-label={`${field.label}${field.unit ? `, ${field.unit}` : ""}, one a line`}
        aria-invalid={wrong.length > 0}
        rows={Math.min(8, Math.max(3, rows.length))}
        value={value}
        onChange={(event) => keep(event.target.value)}
      />
      <small>
        {field.help ? `${field.help}. One a line; paste a column.` : "One a line; paste a column."}
      </small>
      {wrong.map(([name, message]) => (
        <p key={name} role="alert">
          {name.split(".").length > path.length && `Line ${Number(name.split(".").at(-1)) + 1}: `}
          {message}
        </p>
      ))}
    </Sheet>
  );
}

/** A list of rows: each with its fields, pasted in from a sheet. */
export function Rows({ field, columns, path, draft, errors }: Props & { columns: readonly Field[] }) {
  const rows = draft.rows(path) as Given[];
  const names = columns.map((c) => c.name);
  const paste = (row: number, column: number) => (event: ClipboardEvent) => {
    const cells = rowsOf(event.clipboardData.getData("text"));
    if (!cells) return;
    event.preventDefault();
    draft.set(path, pasted(rows, names, row, column, cells));
  };
  const add = () =>
    draft.set(path, [
      ...rows,
      Object.fromEntries(columns.filter((c) => c.required).map((c) => [c.name, ""])),
    ]);
  const whole = errors[path.join(".")];
  return (
    <Sheet>
      {rows.length > 0 && (
        <table>
          <thead>
            <tr>
              {columns.map((c) => (
                <th key={c.name} scope="col" title={c.help}>
                  {c.label}
                  {c.unit && `, ${c.unit}`}
                </th>
              ))}
              <th />
            </tr>
          </thead>
          <tbody>
            {rows.map((_, i) => (
              <tr key={i}>
                {columns.map((c, k) => (
                  <td key={c.name}>
                    <Cell
                      column={c}
                      row={i + 1}
                      value={draft.text([...path, i, c.name])}
                      error={errors[[...path, i, c.name].join(".")]}
                      onChange={(value) => draft.set([...path, i, c.name], value)}
                      onPaste={paste(i, k)}
                    />
                  </td>
                ))}
                <td>
                  <TextButton
                    aria-label={`Take out row ${i + 1}`}
                    onPress={() =>
                      draft.set(
                        path,
                        rows.filter((_, other) => other !== i),
                      )
                    }
                  >
                    take out
                  </TextButton>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {whole && <p role="alert">{whole}</p>}
      <Button onPress={add}>Add a row</Button>
      <small>
        {field.help ? `${field.help}. ` : ""}Rows copied from a sheet can be pasted into the first cell.
      </small>
    </Sheet>
  );
}

type CellProps = {
  column: Field;
  row: number;
  value: unknown;
  error: string | undefined;
  onChange: (value: string | boolean) => void;
  onPaste: (event: ClipboardEvent) => void;
};

function Cell({ column, row, value, error, onChange, onPaste }: CellProps) {
  const label = `${column.label}, row ${row}`;
  if (column.kind === "flag")
    return (
      <input
        type="checkbox"
        aria-label={label}
        checked={value === true}
        onChange={(event) => onChange(event.target.checked)}
      />
    );
  if (column.kind === "choice")
    return (
      <Picker
        label={label}
        value={String(value)}
        options={Object.entries(column.options).map(([v, l]) => ({ value: v, label: l }))}
        onChange={onChange}
      />
    );
  return (
    <>
      <input
        aria-label={label}
        aria-invalid={Boolean(error)}
        data-text={column.kind === "text" || undefined}
        autoComplete="off"
        value={String(value)}
        onChange={(event) => onChange(event.target.value)}
        onPaste={onPaste}
      />
      {error && <p role="alert">{error}</p>}
    </>
  );
}
