import { useRef, useState } from "react";
import { Input, TextField } from "react-aria-components";
import styled from "styled-components";
import { colour, size, space } from "../ui/theme";

const Field = styled(Input)`
  width: 100%;
  padding: ${space(0.5)} 0;
  background: transparent;
  border: 0;
  border-bottom: ${size.thick} solid ${colour("act")};
  border-radius: 0;
  font-weight: 600;
  text-align: right;
  &[data-focused] {
    background: ${colour("card")};
  }
  &[data-invalid] {
    border-bottom-color: ${colour("stop")};
    color: ${colour("stop")};
  }
  &::placeholder {
    color: ${colour("soft")};
    font-weight: 400;
  }
`;

type Props = {
  label: string;
  /** What is shown while the field is not being edited. */
  shown: string;
  /** What the field starts from when it is: no digit is lost. */
  exact: string;
  describedBy?: string;
  isInvalid?: boolean;
  isText?: boolean;
  /** What is being typed, where it outlives the field (an edit that was refused or not kept). */
  waiting?: string;
  onType: (text: string) => void;
  onKeep: (text: string) => void;
  onCancel: () => void;
  onNext?: () => void;
  onFocus?: () => void;
};

/**
 * A quantity in place. Typing previews; Enter or leaving keeps; Escape puts back what was there.
 * A field left as it was found changes nothing.
 */
export function QuantityField(props: Props) {
  const { label, shown, exact, waiting, onType, onKeep, onCancel, onNext } = props;
  const [text, setText] = useState<string | null>(null);
  const started = useRef(exact);
  const value = text ?? waiting ?? shown;

  function leave() {
    if (text === null) return;
    setText(null);
    if (text.trim() === started.current.trim() && waiting === undefined) onCancel();
    else if (text !== waiting) onKeep(text);
  }

  return (
    <TextField
      aria-label={label}
      aria-describedby={props.describedBy}
      value={value}
      isInvalid={props.isInvalid}
      onChange={(next) => {
        setText(next);
        onType(next);
      }}
      onFocus={() => {
        started.current = exact;
        setText(waiting ?? exact);
        props.onFocus?.();
      }}
      onBlur={leave}
      onKeyDown={(event) => {
        if (event.key === "Enter") {
          if (text !== null) {
            if (text.trim() !== started.current.trim() || waiting !== undefined) onKeep(text);
            started.current = text;
          }
          onNext?.();
        } else if (event.key === "Escape") {
          setText(exact);
          started.current = exact;
          onCancel();
        } else {
          event.continuePropagation();
        }
      }}
    >
      <Field
        inputMode={props.isText ? "text" : "decimal"}
        autoComplete="off"
        spellCheck={false}
        placeholder="none"
        onFocus={(event) => event.currentTarget.select()}
      />
    </TextField>
  );
}
