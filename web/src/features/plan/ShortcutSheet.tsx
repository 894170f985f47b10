import styled from "styled-components";
import { Sheet } from "../../shared/ui/Sheet";
import { colour, size, space } from "../../shared/ui/theme";
import { SHORTCUT_LIST } from "./useShortcuts";

const List = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: ${space(2)} ${space(5)};
  margin-bottom: ${space(4)};
  dt {
    justify-self: start;
    padding: 0 ${space(2)};
    border: ${size.line} solid ${colour("ink")};
    border-radius: ${size.radius};
    font-weight: 600;
  }
`;

const Text = styled.p`
  margin-bottom: ${space(4)};
  color: ${colour("soft")};
`;

type Props = {
  /** How many stops a key leads to. */
  stops: number;
  isOpen: boolean;
  onClose: () => void;
};

/** The keys that do something here. */
export function ShortcutSheet({ stops, isOpen, onClose }: Props) {
  const keys = [[`Alt+1 … Alt+${stops}`, "go to a stop"], ...SHORTCUT_LIST] as const;
  return (
    <Sheet title="Keys" isOpen={isOpen} onClose={onClose}>
      <List>
        {keys.map(([key, what]) => (
          <div key={key} style={{ display: "contents" }}>
            <dt>{key}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </List>
      <Text>Inside a field a letter is text; there the same keys work with Alt.</Text>
    </Sheet>
  );
}
