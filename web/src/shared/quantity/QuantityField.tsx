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
  &[inputmode="text"] {
    text-align: left;
  }
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
  const typed = useRef(false);
  /** What is kept: while something is typed, `exact` is what it would be. */
  const before = useRef(exact);
  /** The click that brought the focus is not over: it would undo the selection. */
  const entering = useRef(false);
  const value = text ?? waiting ?? shown;

  function leave() {
    if (text === null) return;
    setText(null);
    if (!typed.current) return;
    typed.current = false;
    if (text.trim() === started.current.trim()) onCancel();
    else onKeep(text);
  }

  return (
    <TextField
      aria-label={label}
      aria-describedby={props.describedBy}
      value={value}
      isInvalid={props.isInvalid}
      onChange={(next) => {
        typed.current = true;
        setText(next);
        onType(next);
      }}
      onFocus={() => {
        // What is waiting counts as where the field starts: leaving it so sends nothing again.
        started.current = waiting ?? exact;
        before.current = exact;
        typed.current = false;
        entering.current = true;
        setText(started.current);
        props.onFocus?.();
      }}
      onBlur={leave}
      onKeyDown={(event) => {
        if (event.key === "Enter") {
          if (text !== null && typed.current && text.trim() !== started.current.trim()) onKeep(text);
          if (text !== null) {
            started.current = text;
            before.current = text;
          }
          typed.current = false;
          onNext?.();
        } else if (event.key === "Escape") {
          setText(before.current);
          started.current = before.current;
          typed.current = false;
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
        onFocus={(event) => {
          // After the click has set its caret and the exact figure stands in the field.
          const input = event.currentTarget;
          requestAnimationFrame(() => input.select());
        }}
        onMouseUp={(event) => {
          if (!entering.current) return;
          entering.current = false;
          event.preventDefault();
          event.currentTarget.select();
        }}
      />
    </TextField>
  );
}
