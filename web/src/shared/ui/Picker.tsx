import { Button, ListBox, ListBoxItem, Popover, Select, SelectValue } from "react-aria-components";
import styled from "styled-components";
import { colour, face, size, space, type } from "./theme";

const Trigger = styled(Button)`
  display: flex;
  gap: ${space(2)};
  align-items: center;
  justify-content: space-between;
  width: 100%;
  padding: ${space(0.5)} 0;
  background: none;
  border: 0;
  border-bottom: ${size.thick} solid ${colour("act")};
  font-weight: 600;
  text-align: left;
  cursor: pointer;
  > span:first-child {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  > span:last-child {
    flex: none;
    align-self: center;
    border: 5px solid transparent;
    border-top-color: ${colour("act")};
    border-bottom-width: 0;
  }
  &[data-disabled] {
    border-bottom-color: transparent;
    cursor: default;
    > span:last-child {
      display: none;
    }
  }
`;

const Sheet = styled(Popover)`
  min-width: var(--trigger-width);
  max-height: 320px;
  overflow: auto;
  background: ${colour("card")};
  border: ${size.line} solid ${colour("ink")};
  box-shadow: 0 4px 14px ${colour("shade")};
`;

const Item = styled(ListBoxItem)`
  padding: ${space(2)} ${space(3)};
  font: 400 ${type.body} ${face.plain};
  cursor: pointer;
  &[data-focused],
  &[data-hovered] {
    background: ${colour("sheet")};
    outline: none;
    box-shadow: inset 3px 0 0 ${colour("act")};
  }
  &[data-selected] {
    font-weight: 600;
  }
`;

type Props = {
  label: string;
  value: string | null;
  options: readonly { value: string; label: string }[];
  onChange: (value: string) => void;
  isDisabled?: boolean;
  onFocus?: () => void;
};

/** One of several, from a list. */
export function Picker({ label, value, options, onChange, isDisabled, onFocus }: Props) {
  return (
    <Select
      aria-label={label}
      selectedKey={value}
      // Without options it would not open: it says so until they have arrived.
      isDisabled={isDisabled || options.length === 0}
      onSelectionChange={(key) => {
        if (key !== null && key !== value) onChange(String(key));
      }}
    >
      <Trigger onFocus={onFocus}>
        <SelectValue>{({ selectedText }) => selectedText || "choose"}</SelectValue>
        <span aria-hidden="true" />
      </Trigger>
      <Sheet>
        <ListBox>
          {options.map((o) => (
            <Item key={o.value} id={o.value} textValue={o.label}>
              {o.label}
            </Item>
          ))}
        </ListBox>
      </Sheet>
    </Select>
  );
}
