import { type ReactNode, useEffect, useState } from "react";
import { Link, useParams } from "react-router";
import styled from "styled-components";
import { said, type Units } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { AppHeader, Blank, Told } from "../../shared/ui/Page";
import { Segments } from "../../shared/ui/Segments";
import { space } from "../../shared/ui/theme";
import { Bar, NoExercise, Sheet, UNITS } from "./ExerciseScreen";
import { Question } from "./Question";
import { useMoment, useMomentAnswer, useMoments } from "./queries";

const List = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(2)};
  padding: 0;
  list-style: none;
`;

/** Moments of a run's plan as exercises: what would you set here? */
export function FromWorkScreen({ tools }: { tools: ReactNode }) {
  const runId = Number(useParams().runId);
  const [units, setUnits] = useState<Units>("metric");
  const [at, setAt] = useState<number | null>(null);
  const moments = useMoments(runId);
  const one = at === null ? undefined : moments.data?.moments[at];
  const moment = one ? { runId, name: one.name, place: one.place } : null;
  const { data: found, error } = useMoment(moment, units);
  const answer = useMomentAnswer(moment);
  useEffect(() => {
    document.title = "Practice from work · Noble Anvil";
  }, []);
  if (moments.error) return <NoExercise error={moments.error} />;
  if (!moments.data) return <Blank>Looking through the plan …</Blank>;
  const { run, release } = moments.data;
  const go = (to: number | null) => {
    answer.reset();
    setAt(to);
  };
  return (
    <>
      <AppHeader title="Practice from work" tools={tools} />
      <Sheet>
        <Bar>
          <Link to={`/runs/${runId}`}>{run}</Link>
          <span>{release === null ? "by its plan as it stands" : `release ${release}`}</span>
          {at !== null && <Button onPress={() => go(null)}>All moments</Button>}
          <Segments
            label="Units"
            value={units}
            options={UNITS}
            onChange={(v) => setUnits(v === "inch" ? "inch" : "metric")}
          />
        </Bar>
        {error && (
          <Told role="alert">
            {said(error)} The plan may have changed meanwhile: take another of its moments.
          </Told>
        )}
        {at === null ? (
          <>
            <h2>What would you set here?</h2>
            {moments.data.moments.length === 0 && (
              <p>This plan asks nothing yet: its stops say what they still need.</p>
            )}
            <List>
              {moments.data.moments.map((m, i) => (
                <li key={`${m.name} ${m.place}`}>
                  <Button onPress={() => go(i)}>
                    {m.title} · {m.words}
                  </Button>
                </li>
              ))}
            </List>
          </>
        ) : (
          found &&
          !error && (
            <Question
              key={at}
              exercise={found.exercise}
              grade={answer.data ?? null}
              error={answer.error}
              isBusy={answer.isPending}
              onAnswer={(given) => answer.mutate({ given, units })}
              onNext={at + 1 < moments.data.moments.length ? () => go(at + 1) : null}
            />
          )
        )}
      </Sheet>
    </>
  );
}
