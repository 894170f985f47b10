import { useState } from "react";
import { Form, Input, Label, TextArea, TextField } from "react-aria-components";
import styled from "styled-components";
import type { PlanList } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import type { FactActions } from "./FactRow";
import type { Trouble } from "./useEditing";

const Bar = styled.div`
  display: grid;
  gap: ${space(2)};
  padding: ${space(2)} ${space(1)} 0;
  label {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  input,
  textarea {
    width: 100%;
    padding: ${space(1)} 0;
    background: transparent;
    border: 0;
    border-bottom: ${size.thick} solid ${colour("act")};
    border-radius: 0;
    font-weight: 600;
  }
  @media ${fold.tablet} {
    input {
      min-height: ${size.touch};
    }
  }
  textarea {
    border: ${size.line} solid ${colour("act")};
    padding: ${space(2)};
    resize: vertical;
  }
  input::placeholder {
    color: ${colour("soft")};
    font-weight: 400;
  }
  p[role="alert"] {
    color: ${colour("stop")};
    white-space: pre-line;
  }
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(1)} ${space(5)};
  align-items: center;
`;

type Props = Pick<FactActions, "onType" | "onKeep" | "onCancel"> & {
  list: PlanList;
  trouble: Trouble | null;
  onAdd: (line: string) => Promise<boolean>;
  onRemove: (id: string) => void;
};

/** Steps as they are read off a print: the next line, the whole list at once, and taking one out. */
export function LineBar({ list, trouble, onAdd, onRemove, onType, onKeep, onCancel }: Props) {
  const [line, setLine] = useState("");
  const [whole, setWhole] = useState<string | null>(null);
  const removable = list.items.filter((item) => item.may_take_out);
  if (!list.may_add && removable.length === 0) return null;
  const leave = () => {
    setWhole(null);
    onCancel(list.path);
  };
  if (whole !== null)
    return (
      <Bar>
        <TextField
          value={whole}
          isInvalid={trouble !== null}
          onChange={(text) => {
            setWhole(text);
            onType(list.path, text);
          }}
          onKeyDown={(event) => event.key === "Escape" && leave()}
          autoFocus
        >
          <Label>
            {list.title}, one line a step: write or paste. Each line: name: diameter limits x length, then the
            rest
          </Label>
          <TextArea rows={Math.max(4, whole.split("\n").length + 1)} spellCheck="false" />
        </TextField>
        {trouble && <p role="alert">{trouble.message}</p>}
        <Row>
          <Button
            onPress={() => {
              onKeep(list.path, { text: whole });
              setWhole(null);
            }}
            isDisabled={trouble !== null}
          >
            Keep the list
          </Button>
          <TextButton onPress={leave}>put back</TextButton>
        </Row>
      </Bar>
    );
  return (
    <Bar>
      {list.may_add && (
        <Form
          onSubmit={(event) => {
            event.preventDefault();
            if (line.trim() === "") return;
            void onAdd(line).then((went) => went && setLine(""));
          }}
        >
          <TextField
            value={line}
            onChange={setLine}
            onPaste={(event) => {
              const text = event.clipboardData.getData("text");
              if (!text.trim().includes("\n")) return;
              // Several lines are a list: they are looked at together before they are kept.
              event.preventDefault();
              const all = [list.lines, text.trim()].filter(Boolean).join("\n");
              setWhole(all);
              onType(list.path, all);
            }}
          >
            <Label>Next step</Label>
            <Input
              placeholder="84 h7 x 40 Ra 1.6 c0.5 — Enter puts it in"
              autoComplete="off"
              spellCheck="false"
            />
          </TextField>
        </Form>
      )}
      <Row>
        {list.may_add && (
          <TextButton onPress={() => setWhole(list.lines ?? "")}>write or paste the whole list</TextButton>
        )}
        {removable.map((item) => (
          <TextButton key={item.id} onPress={() => onRemove(item.id)}>
            take out {item.name}
          </TextButton>
        ))}
      </Row>
    </Bar>
  );
}
