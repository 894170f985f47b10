import { Link } from "react-router";
import styled from "styled-components";
import type { Effects, Item } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { Told } from "../../shared/ui/Page";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";

const Aside = styled.aside`
  padding: ${space(4)} ${space(4.5)};
  border-left: ${size.line} solid ${colour("hairline")};
  overflow: auto;
  section {
    padding-bottom: ${space(4)};
    margin-bottom: ${space(4)};
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  h3 {
    margin-bottom: ${space(1)};
    font: 600 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  ul[aria-busy] {
    opacity: 0.5;
  }
  li {
    padding: ${space(1.5)} 0;
    overflow-wrap: anywhere;
  }
  small {
    display: block;
    font: 400 ${type.label}/1.3 ${face.narrow};
    color: ${colour("soft")};
  }
  small[data-verdict="stopped"] {
    color: ${colour("stop")};
  }
  @media ${fold.tablet} {
    border-left: 0;
    border-top: ${size.line} solid ${colour("hairline")};
  }
`;

const Actions = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(4)};
  align-items: center;
  margin-top: ${space(2)};
`;

const at = (time: string) =>
  new Date(time).toLocaleString("en-GB", {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });

type Props = {
  /** The item as it would be, where something is typed. */
  item: Item;
  /** The plans that it would move, and whether that is still being found. */
  effects: Effects | undefined;
  isLate: boolean;
  isNew: boolean;
  isChanged: boolean;
  isBusy: boolean;
  told: string;
  toldWrong: boolean;
  onKeep: () => void;
  onLeave: () => void;
  onRemove: () => void;
};

/** What a change would move, before it is kept; the runs that take the item; what was changed before. */
export function ItemSlip(props: Props) {
  const { item, effects, isLate, isNew, isChanged, isBusy } = props;
  const moved = effects?.effects ?? [];
  const takes = effects?.takes ?? 0;
  const taking = takes === 1 ? "the plan that takes" : `the ${takes} plans that take`;
  return (
    <Aside aria-label="What it moves">
      {item.may_edit && (isChanged || isNew) && (
        <section aria-label="To keep">
          {!isNew && (
            <>
              <h3>
                {moved.length === 0 ? "What would move" : `${moved.length} of ${takes} plans would move`}
              </h3>
              {moved.length === 0 && (
                <small>
                  {item.errors.length > 0
                    ? "Shown once every entry is in order."
                    : !effects
                      ? isLate
                        ? "Looking at the plans that take it …"
                        : ""
                      : takes === 0
                        ? "No run takes it yet."
                        : `No figure of ${taking} it.`}
                </small>
              )}
              <ul aria-busy={isLate || undefined}>
                {moved.map((run) => (
                  <li key={run.id}>
                    <Link to={`/runs/${run.id}/force`}>{run.name}</Link> {run.drawing_number}
                    <small data-verdict={run.verdict}>{run.text}</small>
                  </li>
                ))}
              </ul>
            </>
          )}
          <Actions>
            <Button onPress={props.onKeep} isDisabled={isBusy}>
              {isNew ? "Put it on the shelf" : "Keep the change"}
            </Button>
            {isChanged && <TextButton onPress={props.onLeave}>put back</TextButton>}
          </Actions>
        </section>
      )}
      <Told role={props.toldWrong ? "alert" : "status"}>{props.told}</Told>
      {!isNew && item.runs && (
        <section>
          <h3>Taken by</h3>
          {item.runs.length === 0 ? (
            <small>No run.</small>
          ) : (
            <ul>
              {item.runs.map((run) => (
                <li key={run.id}>
                  <Link to={`/runs/${run.id}`}>{run.name}</Link> {run.drawing_number}
                  <small data-verdict={run.verdict}>{run.text || run.verdict}</small>
                </li>
              ))}
            </ul>
          )}
        </section>
      )}
      {item.changes.length > 0 && (
        <section>
          <h3>Changes</h3>
          <ul>
            {item.changes.map((c) => (
              <li key={c.at}>
                {c.text}
                <small>
                  {c.by}, {at(c.at)}
                </small>
              </li>
            ))}
          </ul>
        </section>
      )}
      {!isNew && item.may_edit && item.runs?.length === 0 && (
        <TextButton onPress={props.onRemove}>Take this {item.noun} off the shelf</TextButton>
      )}
    </Aside>
  );
}
