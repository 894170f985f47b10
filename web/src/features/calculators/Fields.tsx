import styled from "styled-components";
import { TextButton } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { Picker } from "../../shared/ui/Picker";
import { Segments } from "../../shared/ui/Segments";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { type Field, type Given, matters, type Path } from "./draft";
import { Lines, Rows } from "./Rows";
import type { Draft } from "./useDraft";

const FEW = 3; // choices that stand in sight

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11.5rem, 1fr));
  gap: ${space(3)} ${space(5)};
  align-items: start;
`;

const Part = styled.fieldset`
  grid-column: 1 / -1;
  padding: ${space(2)} 0 0;
  border: 0;
  border-top: ${size.line} solid ${colour("hairline")};
  legend {
    float: left;
    width: 100%;
    margin-bottom: ${space(2)};
    font: 600 ${type.label} ${face.narrow};
  }
  legend + * {
    clear: both;
  }
`;

/** A choice with its name over it and its meaning below, as the entries beside it have them. */
const Choice = styled.div`
  > span {
    display: block;
    margin-bottom: ${space(1)};
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  > small {
    display: block;
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  > p {
    font: 400 ${type.label}/1.3 ${face.narrow};
    color: ${colour("stop")};
  }
`;

type Shared = { draft: Draft; errors: Record<string, string> };
type FieldsProps = Shared & { fields: readonly Field[]; path: Path; given: Given };

export const dotted = (path: Path) => path.join(".");

/** The fields of an calculator that matter, each by what it is. */
export function Fields({ fields, path, given, ...shared }: FieldsProps) {
  return (
    <Grid>
      {fields
        .filter((f) => matters(f, given))
        .map((f) => (
          <One key={f.name} field={f} path={[...path, f.name]} {...shared} />
        ))}
    </Grid>
  );
}

function One({ field, path, draft, errors }: Shared & { field: Field; path: Path }) {
  const error = errors[dotted(path)];
  if (field.many)
    return (
      <Part>
        <legend>
          {field.label}
          {field.unit && `, ${field.unit}`}
          {!field.required && ", where there are any"}
        </legend>
        {field.fields ? (
          <Rows field={field} columns={field.fields} path={path} draft={draft} errors={errors} />
        ) : (
          <Lines field={field} path={path} draft={draft} errors={errors} />
        )}
      </Part>
    );
  if (field.fields) {
    const isThere = field.required || draft.text(path) !== "";
    return (
      <Part>
        <legend>
          {field.label}
          {!field.required && ", where it is known"}{" "}
          {!field.required && (
            <TextButton
              onPress={() => draft.set(path, isThere ? undefined : { [field.fields?.[0]?.name ?? ""]: "" })}
            >
              {isThere ? "leave it out" : "give it"}
            </TextButton>
          )}
        </legend>
        {isThere && (
          <Fields
            fields={field.fields}
            path={path}
            given={(draft.text(path) || {}) as Given}
            draft={draft}
            errors={errors}
          />
        )}
      </Part>
    );
  }
  return <Leaf field={field} path={path} draft={draft} error={error} />;
}

type LeafProps = { field: Field; path: Path; draft: Draft; error: string | undefined };

function Leaf({ field, path, draft, error }: LeafProps) {
  const value = draft.text(path);
  const put = (next: string | boolean) => draft.set(path, next);
  if (field.kind === "flag" || field.kind === "choice") {
    const flag = [
      { value: "no", label: "no" },
      { value: "yes", label: "yes" },
    ];
    const options = Object.entries(field.options).map(([v, label]) => ({ value: v, label }));
    const shown = field.kind === "flag" ? (value === true ? "yes" : "no") : String(value);
    const onChange = (next: string) => put(field.kind === "flag" ? next === "yes" : next);
    const all =
      field.kind === "flag"
        ? flag
        : field.required
          ? options
          : [{ value: "", label: "as usual" }, ...options];
    const isFew = field.kind === "flag" || (options.length <= FEW && (field.required || shown !== ""));
    return (
      <Choice>
        <span aria-hidden>{field.label}</span>
        {isFew ? (
          <Segments
            label={field.label}
            value={shown}
            options={field.kind === "flag" ? flag : options}
            onChange={onChange}
          />
        ) : (
          <Picker label={field.label} value={shown} options={all} onChange={onChange} />
        )}
        {error ? <p role="alert">{error}</p> : <small>{field.help}</small>}
      </Choice>
    );
  }
  return (
    <Entry
      label={`${field.label}${field.unit ? `, ${field.unit}` : ""}`}
      hint={field.help || undefined}
      value={String(value)}
      error={error}
      onChange={put}
      // What is left empty is as usual, and shows it.
      onBlur={() => value === "" && draft.set(path, undefined)}
    />
  );
}
