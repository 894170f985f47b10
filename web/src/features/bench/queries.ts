import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answered, client, type Units } from "../../api/client";

/** A page of the bench. */
export function useBench(find: string, putAway: boolean, page: number) {
  return useQuery({
    queryKey: ["bench", find, putAway, page],
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(client.GET("/api/runs", { params: { query: { find, put_away: putAway, page } } })),
  });
}

/** Everything on the shelf: what a new run chooses from. */
export function useShelfChoices() {
  return useQuery({ queryKey: ["shelf"], queryFn: () => answered(client.GET("/api/shelf")) });
}

export type NewRunForm = {
  name: string;
  drawing_number: string;
  machine: string | null;
  material: string | null;
  outside: string;
  inside: string;
  stock_form: string;
  stock_diameter: string;
  stock_length: string;
  quantity: string;
  units: Units;
};

function useBenchChange<Given, Answer>(change: (given: Given) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => queries.invalidateQueries({ queryKey: ["bench"] }),
  });
}

/** Put a new run on the bench. */
export function useNewRun() {
  return useBenchChange((given: NewRunForm) => answered(client.POST("/api/runs", { body: given })));
}

/** Put the run of a file on the bench. */
export function useReadRun() {
  return useBenchChange((text: string) => answered(client.POST("/api/runs/file", { body: { text } })));
}

export type RunNames = { id: number; name: string; drawing_number: string };

/** Copy a run under another name. */
export function useCopyRun() {
  return useBenchChange(({ id, ...names }: RunNames) =>
    answered(client.POST("/api/runs/{run_id}/copy", { params: { path: { run_id: id } }, body: names })),
  );
}

export type RunFact = { id: number; revision: number; path: string; value: string | boolean };

/** Change what a run is called, or whether it is put away: an edit as any other. */
export function useRunFact() {
  return useBenchChange(({ id, revision, path, value }: RunFact) =>
    answered(
      client.POST("/api/runs/{run_id}/edits", {
        params: { path: { run_id: id } },
        body: { path, value, units: "metric", base_revision: revision, key: crypto.randomUUID() },
      }),
    ),
  );
}

/** Take a run off for good. */
export function useDeleteRun() {
  return useBenchChange((id: number) =>
    answered(client.DELETE("/api/runs/{run_id}", { params: { path: { run_id: id } } })),
  );
}
