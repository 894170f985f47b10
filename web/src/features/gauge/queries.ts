import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answered, client, type Units } from "../../api/client";

const chuckKey = (key: string, units: Units) => ["gauge", key, units];
const runKey = (id: number, units: Units) => ["gauge run", id, units];

/** A chuck's greasing log and gauge runs. */
export function useChuckGauge(key: string, units: Units) {
  return useQuery({
    queryKey: chuckKey(key, units),
    queryFn: () =>
      answered(client.GET("/api/chucks/{key}/gauge", { params: { path: { key }, query: { units } } })),
  });
}

/** One run with its readings and its fit. */
export function useGaugeRun(id: number | null, units: Units) {
  return useQuery({
    queryKey: runKey(id ?? 0, units),
    enabled: id !== null,
    queryFn: () =>
      answered(
        client.GET("/api/gauge-runs/{run_id}", { params: { path: { run_id: id ?? 0 }, query: { units } } }),
      ),
  });
}

function useGaugeChange<Given, Answer>(change: (given: Given) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () =>
      Promise.all(
        [["gauge"], ["gauge run"], ["plan"], ["bench"]].map((queryKey) =>
          queries.invalidateQueries({ queryKey }),
        ),
      ),
  });
}

export type NewRun = {
  source: "typed" | "live";
  side: string;
  on: string;
  pressure: string;
  height: string;
  jaw_mass: string;
  jaw_radius: string;
  jaw_set: string;
  note: string;
  readings: string;
};

/** Take a run in, typed or to be read from a gauge. */
export function useNewGaugeRun(key: string, units: Units) {
  return useGaugeChange((given: NewRun & { key: string }) =>
    answered(
      client.POST("/api/chucks/{key}/gauge-runs", {
        params: { path: { key } },
        body: { ...given, units },
      }),
    ),
  );
}

/** Leave readings out of the fit, or take them in again. */
export function useLeaveOut(id: number) {
  return useGaugeChange((given: { numbers: number[]; left_out: boolean }) =>
    answered(
      client.POST("/api/gauge-runs/{run_id}/left-out", { params: { path: { run_id: id } }, body: given }),
    ),
  );
}

/** Let plans count with a run. */
export function useKeepGaugeRun() {
  return useGaugeChange((id: number) =>
    answered(client.POST("/api/gauge-runs/{run_id}/keep", { params: { path: { run_id: id } } })),
  );
}

/** Take away a run that does not count. */
export function useRemoveGaugeRun() {
  return useGaugeChange((id: number) =>
    answered(client.DELETE("/api/gauge-runs/{run_id}", { params: { path: { run_id: id } } })),
  );
}

/** Note that the chuck was greased. */
export function useGrease(key: string) {
  return useGaugeChange((note: string) =>
    answered(
      client.POST("/api/chucks/{key}/greasings", { params: { path: { key } }, body: { on: "", note } }),
    ),
  );
}

/** Ask the server to read a gauge into a run. */
export function listenToGauge(runId: number, gauge: string, key: string) {
  return answered(
    client.POST("/api/gauge-runs/{run_id}/listen", {
      params: { path: { run_id: runId } },
      body: { gauge, key },
    }),
  );
}

/** The readings of a run that arrived after a number of them. */
export function gaugeReadings(runId: number, after: number) {
  return answered(
    client.GET("/api/gauge-runs/{run_id}/readings", {
      params: { path: { run_id: runId }, query: { after } },
    }),
  );
}
