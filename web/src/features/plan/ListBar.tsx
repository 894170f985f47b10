import { useState } from "react";
import { Form, Input, TextField } from "react-aria-components";
import styled from "styled-components";
import type { PlanList } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { Picker } from "../../shared/ui/Picker";
import { colour, size, space } from "../../shared/ui/theme";

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(2)} ${space(5)};
  align-items: center;
  padding: ${space(3)} ${space(1)} 0;
`;

const Fields = styled(Form)`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(3)};
  align-items: center;
  input {
    width: 180px;
    padding: ${space(0.5)} 0;
    background: transparent;
    border: 0;
    border-bottom: ${size.thick} solid ${colour("act")};
    border-radius: 0;
  }
  input::placeholder {
    color: ${colour("soft")};
  }
  > :nth-child(2) {
    min-width: 120px;
  }
`;

type Props = {
  list: PlanList;
  /** Which item's facts are in view; -1 where all are. */
  inView: number;
  onAdd: (name: string, kind: string | null) => Promise<boolean>;
  onRemove: (index: number) => void;
};

/** Putting a step or a cut in, and taking one out. */
export function ListBar({ list, inView, onAdd, onRemove }: Props) {
  const [name, setName] = useState<string | null>(null);
  const [kind, setKind] = useState(list.kinds[0]?.value ?? null);
  const removable = list.items
    .map((item, index) => ({ item, index }))
    .filter(({ index }) => index >= list.removable_from && (inView < 0 || index === inView));
  if (!list.may_add && removable.length === 0) return null;
  return (
    <Bar>
      {name === null
        ? list.may_add && <Button onPress={() => setName("")}>Put in a {list.noun}</Button>
        : list.may_add && (
            <Fields
              aria-label={`A new ${list.noun}`}
              onSubmit={(event) => {
                event.preventDefault();
                void onAdd(name, kind).then((went) => went && setName(null));
              }}
            >
              <TextField
                aria-label={`${list.named[0]?.toUpperCase()}${list.named.slice(1)} of the new ${list.noun}`}
                value={name}
                onChange={setName}
                onKeyDown={(event) => event.key === "Escape" && setName(null)}
                autoFocus
              >
                <Input placeholder={`${list.named} of the ${list.noun}`} autoComplete="off" />
              </TextField>
              {list.kinds.length > 0 && (
                <Picker label={list.kind_label} value={kind} options={list.kinds} onChange={setKind} />
              )}
              <Button type="submit">Put in</Button>
              <TextButton onPress={() => setName(null)}>leave it</TextButton>
            </Fields>
          )}
      {removable.map(({ item, index }) => (
        <TextButton key={item} onPress={() => onRemove(index)}>
          take out {item}
        </TextButton>
      ))}
    </Bar>
  );
}
