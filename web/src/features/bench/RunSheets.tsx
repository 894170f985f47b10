import { useState } from "react";
import { Form } from "react-aria-components";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { type BenchRow, fieldErrors, said } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { Told } from "../../shared/ui/Page";
import { Sheet } from "../../shared/ui/Sheet";
import { space } from "../../shared/ui/theme";
import { useCopyRun, useDeleteRun, useRunFact } from "./queries";

const Fields = styled(Form)`
  display: grid;
  gap: ${space(4)};
  justify-items: start;
  > div {
    width: 100%;
  }
`;

type Props = { run: BenchRow; onClose: () => void };

/** Another run with the same plan. */
export function CopySheet({ run, onClose }: Props) {
  const [name, setName] = useState(`${run.name}, copy`.slice(0, 80));
  const [number, setNumber] = useState(run.drawing_number);
  const copy = useCopyRun();
  const navigate = useNavigate();
  const errors = fieldErrors(copy.error);
  return (
    <Sheet title={`Copy ${run.name}`} isOpen onClose={onClose}>
      <Fields
        onSubmit={(event) => {
          event.preventDefault();
          const names = { id: run.id, name, drawing_number: number };
          copy.mutate(names, { onSuccess: (made) => void navigate(`/runs/${made.id}`) });
        }}
      >
        <Entry label="Name" value={name} onChange={setName} error={errors.name} autoFocus />
        <Entry
          label="Drawing number"
          value={number}
          onChange={setNumber}
          error={errors.drawing_number}
          hint="The copy has the same plan; its history starts anew."
        />
        <Button type="submit">Copy it</Button>
        <Told role="alert">{copy.error && Object.keys(errors).length === 0 ? said(copy.error) : ""}</Told>
      </Fields>
    </Sheet>
  );
}

/** Another name or number for a run. */
export function RenameSheet({ run, onClose }: Props) {
  const [name, setName] = useState(run.name);
  const [number, setNumber] = useState(run.drawing_number);
  const rename = useRunFact();
  const errors = fieldErrors(rename.error);
  async function keep() {
    let revision = run.revision;
    for (const [path, value, was] of [
      ["name", name, run.name],
      ["drawing_number", number, run.drawing_number],
    ] as const)
      if (value !== was)
        revision = (await rename.mutateAsync({ id: run.id, revision, path, value })).revision;
    onClose();
  }
  return (
    <Sheet title={`Rename ${run.name}`} isOpen onClose={onClose}>
      <Fields
        onSubmit={(event) => {
          event.preventDefault();
          keep().catch(() => {}); // told at the fields below
        }}
      >
        <Entry label="Name" value={name} onChange={setName} error={errors.name} autoFocus />
        <Entry label="Drawing number" value={number} onChange={setNumber} error={errors.drawing_number} />
        <Button type="submit">Keep</Button>
        <Told role="alert">{rename.error && Object.keys(errors).length === 0 ? said(rename.error) : ""}</Told>
      </Fields>
    </Sheet>
  );
}

/** Asks once more before a run goes for good. */
export function DeleteSheet({ run, onClose }: Props) {
  const remove = useDeleteRun();
  return (
    <Sheet title={`Delete ${run.name}?`} isOpen onClose={onClose} closeLabel="Keep it">
      <p>
        {run.drawing_number} goes for good, with its plan and its history of {run.revision}{" "}
        {run.revision === 1 ? "edit" : "edits"}. Putting it away keeps both.
      </p>
      <Told role="alert">{remove.error ? said(remove.error) : ""}</Told>
      <Button onPress={() => remove.mutate(run.id, { onSuccess: onClose })}>Delete it for good</Button>
    </Sheet>
  );
}
