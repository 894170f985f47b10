import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answered, type Board, client } from "../../api/client";

const KEY = "board";
const DAYS = 14;

/** The board from a day on; without one from today. */
export function useBoard(first: string | undefined) {
  return useQuery({
    queryKey: [KEY, first ?? ""],
    placeholderData: keepPreviousData,
    queryFn: () =>
      answered(client.GET("/api/board", { params: { query: { days: DAYS, ...(first && { first }) } } })),
  });
}

/** A run, the draft that was looked at, and when its set-up is to begin [s since 1970]; null takes it off. */
export type Moving = { id: number; revision: number; begins: number | null };

/** Put a run on the board, move it or take it off; the board that this makes is then the one shown. */
export function useMoveRun(first: string | undefined) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, revision, begins }: Moving) =>
      answered(
        client.POST("/api/runs/{run_id}/board", {
          params: { path: { run_id: id } },
          body: {
            key: crypto.randomUUID(),
            base_revision: revision,
            begins,
            first: first ?? null,
            days: DAYS,
            units: "metric",
          },
        }),
      ),
    onSuccess: (board: Board) => {
      queries.setQueryData([KEY, first ?? ""], board);
      void queries.invalidateQueries({ queryKey: [KEY], refetchType: "none" });
      return queries.invalidateQueries({ queryKey: ["bench"] });
    },
  });
}
