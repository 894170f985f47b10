import { Checkbox, CheckboxGroup } from "react-aria-components";
import styled from "styled-components";
import type { ItemField } from "../../api/client";
import { QuantityField } from "../../shared/quantity/QuantityField";
import { TextButton } from "../../shared/ui/Button";
import { Picker } from "../../shared/ui/Picker";
import { Tag } from "../../shared/ui/Tag";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import type { Edits, Entry } from "./queries";

const Group = styled.section`
  margin-bottom: ${space(5)};
  h3 {
    font-size: ${type.title};
    font-weight: 600;
  }
`;

const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(8rem, 1fr) minmax(6.5rem, 0.8fr) 3.25rem minmax(0, 2.4fr);
  gap: 0 ${space(3)};
  align-items: center;
  min-height: 40px;
  padding: ${space(1)} 0;
  border-bottom: ${size.line} solid ${colour("hairline")};
  &[data-wide] {
    grid-template-columns: minmax(8rem, 1fr) minmax(0, 1.6fr) minmax(0, 1.6fr);
  }
  &[data-changed] {
    box-shadow: inset 3px 0 0 ${colour("point")};
    padding-left: ${space(2)};
    margin-left: -${space(2)};
  }
  @media ${fold.phone} {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 2.75rem;
    &[data-wide] {
      grid-template-columns: minmax(0, 1fr) minmax(0, 2fr);
    }
    > :last-child {
      grid-column: 1 / -1;
    }
  }
`;

const Unit = styled.span`
  color: ${colour("soft")};
  font-family: ${face.narrow};
`;

const Says = styled.div`
  font: 400 ${type.small}/1.25 ${face.narrow};
  color: ${colour("soft")};
  p:first-child {
    color: ${colour("ink")};
  }
  button {
    font-size: ${type.small};
    margin-left: ${space(2)};
  }
  [role="alert"] {
    color: ${colour("stop")};
    font-size: ${type.label};
  }
`;

const Shown = styled.div`
  font-weight: 600;
  text-align: right;
  [data-wide] > & {
    text-align: left;
  }
`;

const Several = styled(CheckboxGroup)`
  display: grid;
  gap: ${space(1)};
`;

const Box = styled(Checkbox)`
  display: flex;
  gap: ${space(2)};
  align-items: center;
  cursor: pointer;
  &::before {
    content: "";
    width: 16px;
    height: 16px;
    flex: none;
    border: ${size.line} solid ${colour("ink")};
    background: ${colour("card")};
  }
  &[data-selected]::before {
    background: ${colour("act")};
    box-shadow: inset 0 0 0 3px ${colour("card")};
  }
  &[data-focus-visible]::before {
    outline: ${size.thick} solid ${colour("act")};
    outline-offset: 2px;
  }
`;

type Props = {
  fields: readonly ItemField[];
  edits: Edits;
  mayEdit: boolean;
  errors: Readonly<Record<string, string>>;
  onEntry: (name: string, entry: Entry | null) => void;
  onConfirm: (name: string) => void;
};

function isSame(field: ItemField, entry: Entry): boolean {
  if (Array.isArray(entry)) return entry.join() === (field.value as string[]).join();
  return entry === field.value;
}

type EditorProps = Omit<Props, "fields"> & { field: ItemField; typed: Entry | undefined };

function Editor({ field, typed, mayEdit, errors, onEntry }: EditorProps) {
  const { name, label, unit, options } = field;
  if (!mayEdit) return <Shown>{field.text || "—"}</Shown>;
  if (field.kind === "choices")
    return (
      <Several
        aria-label={label}
        value={(typed as string[] | undefined) ?? (field.value as string[])}
        onChange={(keys) => {
          const entry = [...keys].sort();
          onEntry(name, isSame(field, entry) ? null : entry);
        }}
      >
        {options?.map((o) => (
          <Box key={o.value} value={o.value}>
            {o.label}
          </Box>
        ))}
      </Several>
    );
  if (field.kind === "choice")
    return (
      <Picker
        label={label}
        value={(typed as string | undefined) ?? (field.value as string | null)}
        options={options ?? []}
        onChange={(key) => onEntry(name, key === field.value ? null : key)}
      />
    );
  return (
    <QuantityField
      label={unit ? `${label}, ${unit}` : label}
      shown={field.text}
      exact={field.edit_text}
      waiting={typed as string | undefined}
      isInvalid={name in errors}
      isText={field.kind === "text"}
      describedBy={`says-${name}`}
      onType={(text) => onEntry(name, text)}
      onKeep={(text) => onEntry(name, text.trim() === field.edit_text ? null : text)}
      onCancel={() => onEntry(name, null)}
      onNext={() => {
        const form = document.activeElement?.closest("form");
        const inputs = [...(form?.querySelectorAll<HTMLElement>("input, button[data-field]") ?? [])];
        inputs[inputs.indexOf(document.activeElement as HTMLElement) + 1]?.focus();
      }}
    />
  );
}

/** The fields of a shelf item under their headings: what each is, and where such a figure is found. */
export function ItemFields(props: Props) {
  const { fields, edits, mayEdit, errors, onConfirm } = props;
  const groups = [...new Set(fields.map((f) => f.group))];
  return groups.map((group) => (
    <Group key={group} aria-label={group}>
      <h3>{group}</h3>
      {fields
        .filter((f) => f.group === group)
        .map((field) => {
          const typed = edits.fields[field.name];
          const isTypical = field.typical && typed === undefined && !edits.confirmed.includes(field.name);
          const wide = field.kind !== "quantity";
          return (
            <Row
              key={field.name}
              data-field={field.name}
              data-wide={wide || undefined}
              data-changed={typed !== undefined || undefined}
            >
              <span>{field.label}</span>
              <Editor {...props} field={field} typed={typed} />
              {!wide && <Unit>{field.unit}</Unit>}
              <Says id={`says-${field.name}`}>
                <p>
                  {field.help}
                  {field.optional && !/empty:/i.test(field.help) ? "; may be left empty" : ""}{" "}
                  {isTypical && (
                    <>
                      <Tag>typical</Tag>
                      {mayEdit && (
                        <TextButton
                          onPress={() => onConfirm(field.name)}
                          aria-label={`it is ours: ${field.label}`}
                        >
                          it is ours
                        </TextButton>
                      )}
                    </>
                  )}
                </p>
                {field.where && <p>{field.where}</p>}
                {errors[field.name] && <p role="alert">{errors[field.name]}</p>}
              </Says>
            </Row>
          );
        })}
    </Group>
  ));
}
