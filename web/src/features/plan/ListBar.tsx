import { useState } from "react";
import { Form, Input, TextField } from "react-aria-components";
import styled from "styled-components";
import type { PlanList } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { Picker } from "../../shared/ui/Picker";
import { colour, fold, size, space } from "../../shared/ui/theme";

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
  @media ${fold.tablet} {
    input {
      min-height: ${size.touch};
    }
  }
  > :nth-child(2) {
    min-width: 120px;
  }
`;

type Props = {
  list: PlanList;
  /** The item whose facts are in view, by its id; none where all are. */
  inView: string | undefined;
  onAdd: (name: string, kind: string | null) => Promise<boolean>;
  onRemove: (id: string) => void;
};

/** Putting a step or a cut in, and taking one out. */
export function ListBar({ list, inView, onAdd, onRemove }: Props) {
  const [name, setName] = useState<string | null>(null);
  const [kind, setKind] = useState(list.kinds[0]?.value ?? null);
  const removable = list.items.filter(
    (item) => item.may_take_out && (inView === undefined || item.id === inView),
  );
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
      {removable.map((item) => (
        <TextButton key={item.id} onPress={() => onRemove(item.id)}>
          take out {item.name}
        </TextButton>
      ))}
    </Bar>
  );
}
