import { memo } from "react";
import { ToggleButton } from "react-aria-components";
import styled from "styled-components";
import type { Fact } from "../../api/client";
import { QuantityField } from "../../shared/quantity/QuantityField";
import { TextButton } from "../../shared/ui/Button";
import { Picker } from "../../shared/ui/Picker";
import { Segments } from "../../shared/ui/Segments";
import { Tag } from "../../shared/ui/Tag";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import type { EntryValue } from "./queries";
import type { Trouble } from "./useEditing";

const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(5.5rem, 1fr) 4.625rem 2.875rem minmax(6.25rem, 1.2fr);
  gap: 0 ${space(1.5)};
  align-items: center;
  min-height: 36px;
  padding: ${space(0.5)} ${space(1)};
  border-bottom: ${size.line} solid ${colour("hairline")};
  break-inside: avoid;
  line-height: 1.2;
  /* A choice needs the room: what is said of it stands below. */
  &[data-wide] {
    grid-template-columns: minmax(5.5rem, 1fr) minmax(0, 2.2fr);
    > :nth-child(3) {
      grid-column: 2;
      text-align: right;
    }
  }
  /* A step stands as its whole line. */
  &[data-line] {
    grid-template-columns: minmax(5.5rem, 9rem) minmax(0, 1fr) minmax(6.25rem, 12rem);
    > :nth-child(2) {
      text-align: left;
    }
    input {
      text-align: left;
    }
  }
  overflow-wrap: anywhere;
  @media ${fold.tablet} {
    min-height: ${size.touch};
    input,
    button {
      min-height: ${size.touch};
    }
  }
  @media ${fold.phone} {
    grid-template-columns: minmax(4rem, 1fr) 5rem 2.875rem minmax(0, 1.2fr);
  }
  &[data-lit] {
    background: ${colour("card")};
    box-shadow: inset 3px 0 0 ${colour("point")};
  }
`;

const Value = styled.div`
  text-align: right;
  font-weight: 600;
  &[data-moved] {
    color: ${colour("pointInk")};
  }
`;

const Unit = styled.span`
  color: ${colour("soft")};
  font-family: ${face.narrow};
  white-space: nowrap;
`;

const Source = styled.div`
  font: 400 ${type.small}/1.2 ${face.narrow};
  color: ${colour("soft")};
  b {
    font-weight: 600;
    color: ${colour("pointInk")};
  }
`;

/** Settling leaves a pinned figure as it is. */
const Pin = styled(ToggleButton)`
  margin-left: ${space(1)};
  padding: 0;
  background: none;
  border: 0;
  font: inherit;
  color: ${colour("act")};
  cursor: pointer;
  &[data-selected] {
    color: ${colour("ink")};
    font-weight: 600;
    text-decoration: underline;
  }
`;

const Wrong = styled.div`
  grid-column: 1 / -1;
  padding: ${space(1)} 0;
  font: 400 ${type.label}/1.3 ${face.narrow};
  color: ${colour("stop")};
  button {
    margin-left: ${space(3)};
  }
`;

export type FactActions = {
  onType: (path: string, text: string) => void;
  onKeep: (path: string, entry: EntryValue) => void;
  onCancel: (path: string) => void;
  onTryAgain: () => void;
  onTakeTheirs: (path: string) => void;
  onTakeMine: (path: string) => void;
  onLight: (name: string | null) => void;
};

type Props = FactActions & {
  fact: Fact;
  was: string | undefined;
  lit: boolean;
  trouble: Trouble | null;
};

/** To the next entry of the ledger, on Enter. */
export function nextField(from: Element | null) {
  const ledger = from?.closest("[data-ledger]");
  if (!ledger || !from) return;
  const fields = [...ledger.querySelectorAll<HTMLElement>("input, button[data-field]")];
  const here = fields.indexOf(from as HTMLElement);
  fields[here + 1]?.focus();
}

function Editor({ fact, path, trouble, describedBy, ...on }: Props & { path: string; describedBy: string }) {
  const light = () => on.onLight(fact.name);
  const options = fact.options ?? [];
  switch (fact.kind) {
    case "choice":
      return (
        <Picker
          label={fact.label}
          value={fact.value === null ? null : String(fact.value)}
          options={options}
          onChange={(value) => on.onKeep(path, { value })}
          onFocus={light}
        />
      );
    case "flag":
      return (
        <Segments
          label={fact.label}
          value={fact.value ? "yes" : "no"}
          options={[
            { value: "no", label: "no" },
            { value: "yes", label: "yes" },
          ]}
          onChange={(value) => on.onKeep(path, { value: value === "yes" })}
          onFocus={light}
        />
      );
    default:
      return (
        <QuantityField
          label={`${fact.label}${fact.unit ? `, ${fact.unit}` : ""}`}
          shown={fact.text}
          exact={fact.edit_text}
          describedBy={describedBy}
          isInvalid={trouble !== null}
          isText={fact.kind === "text" || fact.kind === "line"}
          waiting={trouble && "text" in trouble.entry ? trouble.entry.text : undefined}
          onType={(text) => on.onType(path, text)}
          onKeep={(text) => on.onKeep(path, { text })}
          onCancel={() => on.onCancel(path)}
          onNext={() => nextField(document.activeElement)}
          onFocus={light}
        />
      );
  }
}

type Mending = Pick<FactActions, "onTryAgain" | "onTakeMine" | "onTakeTheirs"> & { trouble: Trouble };

/** What is wrong with an entry, and what can be done about it. */
export function TroubleLine({ trouble, onTryAgain, onTakeMine, onTakeTheirs }: Mending) {
  if (trouble.kind === "conflict")
    return (
      <>
        {trouble.message} Theirs: <b>{trouble.theirs || "empty"}</b>.
        <TextButton onPress={() => onTakeTheirs(trouble.path)}>keep theirs</TextButton>
        <TextButton onPress={() => onTakeMine(trouble.path)}>keep mine</TextButton>
      </>
    );
  return (
    <>
      {trouble.message}
      {trouble.kind === "unsent" && <TextButton onPress={onTryAgain}>Try again</TextButton>}
    </>
  );
}

/** One line of the ledger: label, value, unit, where it came from. */
export const FactRow = memo(function FactRow(props: Props) {
  const { fact, was, lit, trouble, onLight } = props;
  const noteId = `note-${fact.name}`;
  const isLine = fact.kind === "line";
  const wide = fact.kind === "choice" || fact.kind === "flag" || fact.kind === "text";
  return (
    <Row
      data-lit={lit || undefined}
      data-wide={wide || undefined}
      data-line={isLine || undefined}
      data-fact={fact.name}
      onPointerEnter={() => onLight(fact.name)}
      onPointerLeave={() => onLight(null)}
    >
      <span>{fact.label}</span>
      <Value data-moved={was !== undefined || undefined}>
        {fact.path && fact.editable ? (
          <Editor {...props} path={fact.path} describedBy={noteId} />
        ) : (
          fact.text || "—"
        )}
      </Value>
      {!wide && !isLine && <Unit>{fact.unit}</Unit>}
      <Source id={noteId}>
        {was !== undefined ? <b>was {was || "empty"}</b> : fact.source}{" "}
        {fact.typed && was === undefined && <>typed {fact.typed} </>}
        {fact.proposed && was === undefined && <Tag>proposed</Tag>}
        {fact.basis === "typical" && !fact.proposed && <Tag>typical</Tag>}
        {fact.pin_path !== null && (
          <Pin
            isSelected={fact.pinned}
            aria-label={`${fact.pinned ? "pinned" : "pin"} ${fact.label}`}
            onChange={(pinned) => fact.pin_path !== null && props.onKeep(fact.pin_path, { value: pinned })}
          >
            {fact.pinned ? "pinned" : "pin"}
          </Pin>
        )}
      </Source>
      {trouble && (
        <Wrong role="alert">
          <TroubleLine {...props} trouble={trouble} />
        </Wrong>
      )}
    </Row>
  );
});
