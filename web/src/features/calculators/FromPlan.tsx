import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { said } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { Told } from "../../shared/ui/Page";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { at, type Given } from "./draft";
import { putBack, useRuns, useTaken } from "./queries";

const Box = styled.section`
  display: grid;
  gap: ${space(2)};
  margin-bottom: ${space(4)};
  padding: ${space(3)};
  background: ${colour("card")};
  border: ${size.line} solid ${colour("hairline")};
  ul {
    display: flex;
    flex-wrap: wrap;
    gap: ${space(2)};
    padding: 0;
    list-style: none;
  }
  p {
    font: 400 ${type.label}/1.4 ${face.narrow};
  }
`;

/** Where what is looked at came from: the run, what of it, the figures as they were, and their facts. */
export type Source = {
  runId: number;
  run: string;
  words: string;
  revision: number;
  given: Given;
  paths: Record<string, string>;
};

type Props = { name: string; onTake: (source: Source) => void; onClose: () => void };

/** Fill the calculator with what a run's plan asked it. */
export function FromPlan({ name, onTake, onClose }: Props) {
  const [find, setFind] = useState("");
  const [run, setRun] = useState<{ id: number; name: string } | null>(null);
  const runs = useRuns(find);
  const found = useTaken(name, run?.id ?? null);
  if (run)
    return (
      <Box aria-label="Take from a plan">
        <p>
          <b>{run.name}</b> <TextButton onPress={() => setRun(null)}>another run</TextButton>
        </p>
        {found.isError && <Told role="alert">{said(found.error)}</Told>}
        {found.data?.taken.length === 0 && (
          <p>This plan does not ask this, or not yet: its stops say what they still need.</p>
        )}
        <ul>
          {found.data?.taken.map((t) => (
            <li key={`${t.words} ${JSON.stringify(t.given)}`}>
              <Button
                onPress={() => onTake({ ...t, runId: run.id, run: run.name, revision: found.data.revision })}
              >
                {t.words}
              </Button>
            </li>
          ))}
        </ul>
        <p>
          <TextButton onPress={onClose}>Close</TextButton>
        </p>
      </Box>
    );
  return (
    <Box aria-label="Take from a plan">
      <Entry
        label="Which run"
        hint="Part, drawing number or machine"
        value={find}
        onChange={setFind}
        autoFocus
      />
      <ul>
        {runs.data?.rows.map((r) => (
          <li key={r.id}>
            <Button onPress={() => setRun({ id: r.id, name: `${r.drawing_number} ${r.name}` })}>
              {r.drawing_number} {r.name}
            </Button>
          </li>
        ))}
      </ul>
      {runs.data?.rows.length === 0 && <p>No run is called so.</p>}
      <p>
        <TextButton onPress={onClose}>Close</TextButton>
      </p>
    </Box>
  );
}

type BackProps = { source: Source; now: Given | undefined; onKept: (source: Source) => void };

/** Where the figures came from, and the way back: those that are facts of the plan and are other now. */
export function BackToPlan({ source, now, onKept }: BackProps) {
  const changed = now
    ? Object.entries(source.paths).filter(([field]) => at(now, [field]) !== at(source.given, [field]))
    : [];
  const keep = useMutation({
    mutationFn: async () => {
      let { revision, given } = source;
      for (const [field, path] of changed) {
        revision = await putBack(source.runId, path, Number(at(now, [field])), revision);
        given = { ...given, [field]: at(now, [field]) };
      }
      return { ...source, revision, given };
    },
    onSuccess: onKept,
  });
  const many = changed.length === 1 ? "1 figure" : `${changed.length} figures`;
  return (
    <Box aria-label="From a plan">
      <p>
        From <Link to={`/runs/${source.runId}/part`}>{source.run}</Link>, {source.words}.{" "}
        {Object.keys(source.paths).length === 0 &&
          "None of these figures was entered there: they follow from others."}
      </p>
      {changed.length > 0 && (
        <p>
          <Button isDisabled={keep.isPending} onPress={() => keep.mutate()}>
            Put {many} back into the plan
          </Button>
        </p>
      )}
      {keep.isSuccess && changed.length === 0 && <Told role="status">The plan has them now.</Told>}
      {keep.isError && <Told role="alert">{said(keep.error)}</Told>}
    </Box>
  );
}
