import { ToggleButton, ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";
import { colour, fold, size, space } from "./theme";

const Group = styled(ToggleButtonGroup)`
  display: inline-flex;
  border: ${size.line} solid ${colour("ink")};
  border-radius: ${size.radius};
`;

const Segment = styled(ToggleButton)`
  min-height: 28px;
  padding: 0 ${space(3)};
  background: transparent;
  border: 0;
  cursor: pointer;
  &[data-selected] {
    background: ${colour("ink")};
    color: ${colour("card")};
  }
  &[data-hovered]:not([data-selected]) {
    color: ${colour("act")};
  }
  &[data-disabled] {
    cursor: default;
  }
  @media ${fold.tablet} {
    min-height: ${size.touch};
    min-width: ${size.touch};
  }
`;

type Props = {
  label: string;
  value: string;
  options: readonly { value: string; label: string }[];
  onChange: (value: string) => void;
  isDisabled?: boolean;
  onFocus?: () => void;
};

/** One of a few, all in sight. */
export function Segments({ label, value, options, onChange, isDisabled, onFocus }: Props) {
  return (
    <Group
      aria-label={label}
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[value]}
      isDisabled={isDisabled}
      onSelectionChange={(keys) => {
        const [key] = keys;
        if (key !== undefined && key !== value) onChange(String(key));
      }}
    >
      {options.map((o) => (
        <Segment key={o.value} id={o.value} onFocus={onFocus}>
          {o.label}
        </Segment>
      ))}
    </Group>
  );
}
