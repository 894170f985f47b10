import { type ReactNode, useEffect, useState } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import styled from "styled-components";
import { said, type Units } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { AppHeader, Blank, Told } from "../../shared/ui/Page";
import { Segments } from "../../shared/ui/Segments";
import { colour, space, type } from "../../shared/ui/theme";
import { Question } from "./Question";
import { useAnswer, useExercise, usePractice } from "./queries";

export const Sheet = styled.main`
  padding: ${space(5)} ${space(4.5)} ${space(12)};
`;

export const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(2)} ${space(3)};
  align-items: center;
  margin-bottom: ${space(4)};
  h2 {
    font-size: ${type.run};
    font-weight: 600;
  }
  > span {
    flex: 1 1 auto;
    color: ${colour("soft")};
  }
`;

/** What is wrong with the exercise that was asked for, and the way on. */
export function NoExercise({ error }: { error: unknown }) {
  return (
    <Blank>
      <p>{said(error)}</p>
      <p>
        <Link to="/practice">All subjects</Link>
      </p>
    </Blank>
  );
}

export const UNITS = [
  { value: "metric", label: "mm" },
  { value: "inch", label: "inch" },
];

const number = (text: string | null) => (text !== null && /^\d+$/.test(text) ? Number(text) : null);

/** One exercise after the other of a kind: the next is what is due, or another of the same. */
export function ExerciseScreen({ tools }: { tools: ReactNode }) {
  const { kind = "" } = useParams();
  const [query, setQuery] = useSearchParams();
  const [units, setUnits] = useState<Units>(query.get("units") === "inch" ? "inch" : "metric");
  const [round, setRound] = useState(0);
  const [told, setTold] = useState("");
  const which = {
    kind,
    seed: number(query.get("seed")),
    level: number(query.get("level")),
    generator: number(query.get("version")),
  };
  const { data: found, error } = useExercise(which, units, round);
  const answer = useAnswer();
  const practice = usePractice();
  const levels = Array.from({ length: found?.levels ?? 1 }, (_, i) => String(i + 1));
  useEffect(() => {
    document.title = `${found?.title ?? "Practice"} · Noble Anvil`;
  }, [found?.title]);
  if (error) return <NoExercise error={error} />;
  if (!found) return <Blank>Drawing an exercise …</Blank>;
  const next = (level: number | null) => {
    answer.reset();
    setTold("");
    setQuery(level === null ? {} : { level: String(level) });
    setRound((n) => n + 1);
  };
  const copyLink = async () => {
    const link = new URL(`/practice/${kind}`, window.location.origin);
    link.search = String(
      new URLSearchParams({
        seed: String(found.seed),
        level: String(found.level),
        version: String(found.generator),
        ...(units === "inch" ? { units } : {}),
      }),
    );
    try {
      await navigator.clipboard.writeText(String(link));
      setTold("The link is copied: it opens this very exercise.");
    } catch {
      setTold(String(link));
    }
  };
  const due = practice.data?.next;
  return (
    <>
      <AppHeader title={found.title} tools={tools} />
      <Sheet>
        <Bar>
          <Link to="/practice">All subjects</Link>
          <h2>{found.title}</h2>
          <span>
            Level {found.level} of {found.levels}
          </span>
          {levels.length > 1 && (
            <Segments
              label="Level"
              value={String(found.level)}
              options={levels.map((l) => ({ value: l, label: `level ${l}` }))}
              onChange={(l) => next(Number(l))}
            />
          )}
          <Segments
            label="Units"
            value={units}
            options={UNITS}
            onChange={(v) => {
              // The same exercise in other units, not another one.
              setQuery({
                seed: String(found.seed),
                level: String(found.level),
                version: String(found.generator),
              });
              setUnits(v === "inch" ? "inch" : "metric");
            }}
          />
          <Button onPress={copyLink}>Copy the link</Button>
        </Bar>
        {(told || found.told) && <Told role="status">{told || found.told}</Told>}
        <Question
          key={`${found.kind} ${found.seed} ${found.level}`}
          exercise={found.exercise}
          grade={answer.data?.grade ?? null}
          error={answer.error}
          isBusy={answer.isPending}
          onAnswer={(given) =>
            answer.mutate({ kind: found.kind, seed: found.seed, level: found.level, given, units })
          }
          onNext={() => next(null)}
        />
        {answer.data && due && due !== kind && (
          <p>
            <Link to={`/practice/${due}`} onClick={() => answer.reset()}>
              Or what is due: {practice.data?.subjects.find((s) => s.kind === due)?.title}
            </Link>
          </p>
        )}
      </Sheet>
    </>
  );
}
