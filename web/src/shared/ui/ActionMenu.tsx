import { Button, Header, Menu, MenuItem, MenuSection, MenuTrigger, Popover } from "react-aria-components";
import styled from "styled-components";
import { colour, face, fold, size, space, type } from "./theme";

const Trigger = styled(Button)`
  min-height: 32px;
  padding: ${space(1)} ${space(2.5)};
  background: transparent;
  border: ${size.line} solid ${colour("hairline")};
  border-radius: ${size.radius};
  font: 400 ${type.label} ${face.narrow};
  white-space: nowrap;
  cursor: pointer;
  &::after {
    content: "";
    display: inline-block;
    margin-left: ${space(1.5)};
    vertical-align: middle;
    border: 4px solid transparent;
    border-top-color: ${colour("act")};
    border-bottom-width: 0;
  }
  &[data-hovered] {
    border-color: ${colour("act")};
    color: ${colour("act")};
  }
  @media ${fold.tablet} {
    min-height: ${size.touch};
  }
`;

const Sheet = styled(Popover)`
  min-width: 200px;
  background: ${colour("card")};
  border: ${size.line} solid ${colour("ink")};
  box-shadow: 0 4px 14px ${colour("shade")};
`;

const List = styled(Menu)`
  outline: none;
  header {
    padding: ${space(2)} ${space(3)} ${space(0.5)};
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  section + section {
    border-top: ${size.line} solid ${colour("hairline")};
  }
`;

const Item = styled(MenuItem)`
  display: block;
  padding: ${space(2)} ${space(3)};
  color: ${colour("ink")};
  text-decoration: none;
  font-weight: 400;
  cursor: pointer;
  outline: none;
  &[data-focused],
  &[data-hovered] {
    background: ${colour("sheet")};
    box-shadow: inset 3px 0 0 ${colour("act")};
  }
  &[data-disabled] {
    color: ${colour("soft")};
    cursor: default;
  }
`;

export type MenuAction = { id: string; label: string; onAction: () => void; isDisabled?: boolean };
export type MenuGroup = { title?: string; actions: readonly MenuAction[] };

type Props = { label: string; hint?: string; groups: readonly MenuGroup[] };

/** A button that opens a list of actions, in groups. */
export function ActionMenu({ label, hint, groups }: Props) {
  return (
    <MenuTrigger>
      <Trigger aria-label={hint}>{label}</Trigger>
      <Sheet>
        <List>
          {groups
            .filter((g) => g.actions.length > 0)
            .map((group) => (
              <MenuSection key={group.title ?? group.actions[0]?.id} aria-label={group.title ?? label}>
                {group.title && <Header>{group.title}</Header>}
                {group.actions.map((a) => (
                  <Item key={a.id} id={a.id} onAction={a.onAction} isDisabled={a.isDisabled}>
                    {a.label}
                  </Item>
                ))}
              </MenuSection>
            ))}
        </List>
      </Sheet>
    </MenuTrigger>
  );
}
