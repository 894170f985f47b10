import { useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import { fieldErrors, type Item, said, type Units } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { Picker } from "../../shared/ui/Picker";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { type Life, useNoteLife } from "./queries";

const Part = styled.section`
  margin-bottom: ${space(6)};
  h3 {
    margin-bottom: ${space(1)};
    font: 600 ${type.label} ${face.narrow};
  }
  li {
    display: grid;
    grid-template-columns: 7.5rem minmax(0, 1fr) auto;
    gap: ${space(3)};
    padding: ${space(1.5)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  small,
  time {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  p[role="alert"] {
    color: ${colour("stop")};
  }
`;

const Fields = styled(Form)`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(3)} ${space(5)};
  align-items: end;
  padding: ${space(3)} 0;
`;

const WHAT = [
  { value: "recut", label: "re-cut" },
  { value: "refit", label: "refitted" },
  { value: "lent", label: "lent" },
  { value: "back", label: "came back" },
  { value: "damaged", label: "damaged" },
  { value: "bored", label: "bored anew" },
];
const EMPTY: Life = { what: "recut", size: "", removal: "", note: "" };
const day = (on: string) =>
  new Date(on).toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" });

type Props = { item: Item; units: Units };

/** The life of a jaw set: what happened to it, and noting the next thing. */
export function LifePart({ item, units }: Props) {
  const [entry, setEntry] = useState<Life>(EMPTY);
  const note = useNoteLife();
  const wrong = fieldErrors(note.error);
  const set = (name: keyof Life) => (text: string) => setEntry((all) => ({ ...all, [name]: text }));
  const unit = units === "inch" ? "in" : "mm";
  const sized = entry.what === "recut" || entry.what === "bored";
  return (
    <Part aria-label="Its life">
      <h3>Its life</h3>
      {item.may_note && (
        <Fields
          onSubmit={(event) => {
            event.preventDefault();
            note.mutate({ key: item.key, life: entry, units }, { onSuccess: () => setEntry(EMPTY) });
          }}
        >
          <Picker label="What happened" value={entry.what} options={WHAT} onChange={set("what")} />
          {sized && (
            <Entry label={`Bored to, ${unit}`} value={entry.size} onChange={set("size")} error={wrong.size} />
          )}
          {(entry.what === "recut" || entry.what === "damaged") && (
            <Entry
              label={`${entry.what === "damaged" ? "Deepest mark" : "Taken off"} a side, ${unit}`}
              value={entry.removal}
              onChange={set("removal")}
              error={wrong.removal}
            />
          )}
          <Entry
            label={entry.what === "lent" ? "To whom" : "Note"}
            value={entry.note}
            onChange={set("note")}
            error={wrong.note}
          />
          <Button type="submit" isDisabled={note.isPending}>
            Note it
          </Button>
        </Fields>
      )}
      {note.error && Object.keys(wrong).length === 0 && <p role="alert">{said(note.error)}</p>}
      <ul>
        {item.life?.map((e) => (
          <li key={`${e.on} ${e.text}`}>
            <time dateTime={e.on}>{day(e.on)}</time>
            <span>{e.text}</span>
            <small>{e.by}</small>
          </li>
        ))}
      </ul>
    </Part>
  );
}
