import type { ReactNode } from "react";
import { FieldError, Input, Label, Text, TextField, type TextFieldProps } from "react-aria-components";
import styled from "styled-components";
import { colour, face, size, space, type } from "./theme";

const Field = styled(TextField)`
  label {
    display: block;
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  input {
    width: 100%;
    height: ${size.touch};
    padding: 0 ${space(2)};
    background: ${colour("card")};
    border: 0;
    border-bottom: ${size.thick} solid ${colour("act")};
    border-radius: 0;
    outline-offset: -${size.thick};
  }
  input[data-invalid] {
    border-bottom-color: ${colour("stop")};
  }
  [slot="description"] {
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  .react-aria-FieldError {
    display: block;
    font: 400 ${type.label}/1.3 ${face.narrow};
    color: ${colour("stop")};
  }
`;

type Props = TextFieldProps & { label: string; hint?: ReactNode; error?: string | undefined };

/** A labelled entry of a form; its error says what to do and stands below it. */
export function Entry({ label, hint, error, ...field }: Props) {
  return (
    <Field {...field} isInvalid={Boolean(error)} validationBehavior="aria">
      <Label>{label}</Label>
      <Input autoComplete={field.autoComplete ?? "off"} />
      {hint && !error && <Text slot="description">{hint}</Text>}
      <FieldError>{error}</FieldError>
    </Field>
  );
}
