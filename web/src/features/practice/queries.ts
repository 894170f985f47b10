import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answered, client, type Units } from "../../api/client";

/** Every subject as it stands for who is signed in. */
export function usePractice() {
  return useQuery({
    queryKey: ["practice"],
    staleTime: 0,
    queryFn: () => answered(client.GET("/api/practice")),
  });
}

/** Which exercise: a link brings seed, level and version, else they are drawn. */
export type Which = { kind: string; seed: number | null; level: number | null; generator: number | null };

/** An exercise; one that is drawn is another for each `round`. */
export function useExercise(which: Which, units: Units, round: number) {
  const { kind, seed, level, generator } = which;
  return useQuery({
    queryKey: ["exercise", which, units, round],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      answered(
        client.GET("/api/practice/exercises/{kind}", {
          params: { path: { kind }, query: { seed, level, generator, units } },
        }),
      ),
  });
}

/** Grade an answer, and keep it. */
export function useAnswer() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: { kind: string; seed: number; level: number; given: string; units: Units }) =>
      answered(client.POST("/api/practice/answers", { body: { key: crypto.randomUUID(), ...body } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["practice"] }),
  });
}

/** Hide one's progress, or show it. */
export function useHide() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (hidden: boolean) => answered(client.POST("/api/practice/hidden", { body: { hidden } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["practice"] }),
  });
}

/** Who has practised what. */
export function useWhoPractised(may: boolean) {
  return useQuery({
    queryKey: ["practice", "people"],
    enabled: may,
    queryFn: () => answered(client.GET("/api/practice/people")),
  });
}

export type BenchSet = { pressure_bar: number; height_mm: number; rpm: number; grease: string };

/** What the apprentice's chuck answers; while it is set, the last answer stays. */
export function useApprentice(set: BenchSet, seed: number, tapers: string[], units: Units) {
  return useQuery({
    queryKey: ["apprentice", set, seed, tapers, units],
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () =>
      answered(client.POST("/api/practice/apprentice", { body: { ...set, seed, tapers, units } })),
  });
}

/** Runs that exercises can be made of. */
export function useRunsToPractise() {
  return useQuery({
    queryKey: ["bench", "to practise"],
    queryFn: () =>
      answered(client.GET("/api/runs", { params: { query: { find: "", put_away: false, page: 0 } } })),
  });
}

/** What of a run's plan can be practised. */
export function useMoments(runId: number) {
  return useQuery({
    queryKey: ["moments", runId],
    queryFn: () =>
      answered(client.GET("/api/practice/from/{run_id}", { params: { path: { run_id: runId } } })),
  });
}

type Moment = { runId: number; name: string; place: number };

/** A moment of a plan as an exercise. */
export function useMoment(moment: Moment | null, units: Units) {
  return useQuery({
    queryKey: ["moment", moment, units],
    enabled: moment !== null,
    queryFn: () => {
      const { runId, name, place } = moment ?? { runId: 0, name: "", place: 0 };
      return answered(
        client.GET("/api/practice/from/{run_id}/{name}/{place}", {
          params: { path: { run_id: runId, name, place }, query: { units } },
        }),
      );
    },
  });
}

/** Grade an answer to a moment of a plan; nothing is kept of it. */
export function useMomentAnswer(moment: Moment | null) {
  return useMutation({
    mutationFn: (body: { given: string; units: Units }) => {
      const { runId, name, place } = moment ?? { runId: 0, name: "", place: 0 };
      return answered(
        client.POST("/api/practice/from/{run_id}/{name}/{place}", {
          params: { path: { run_id: runId, name, place } },
          body,
        }),
      );
    },
  });
}
