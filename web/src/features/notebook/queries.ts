import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answered, client, type NotebookAnswer, type Noted, type Units } from "../../api/client";
import { answerOf } from "../../shared/questions";

export type Asked = { find: string; kind: string; group: string; page: number; units: Units };

/** A page of the notebook. */
export function useNotebook(asked: Asked) {
  return useQuery({
    queryKey: ["notebook", asked],
    placeholderData: keepPreviousData,
    queryFn: () => answered(client.GET("/api/notebook/cuts", { params: { query: asked } })),
  });
}

function useNotebookChange<Given, Answer>(change: (given: Given) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () =>
      Promise.all([["notebook"], ["like"]].map((queryKey) => queries.invalidateQueries({ queryKey }))),
  });
}

/** Write a cut by hand. */
export function useWriteCut(units: Units) {
  return useNotebookChange((fields: Record<string, string>) =>
    answered(
      client.POST("/api/notebook/cuts", {
        body: { fields, units, key: crypto.randomUUID() },
      }),
    ),
  );
}

/** Take a cut out. */
export function useTakeOut() {
  return useNotebookChange((proven: number) =>
    answered(client.DELETE("/api/notebook/cuts/{proven}", { params: { path: { proven } } })),
  );
}

/** Put a cut that was taken out back. */
export function usePutBack() {
  return useNotebookChange((proven: number) =>
    answered(client.POST("/api/notebook/cuts/{proven}/back", { params: { path: { proven } } })),
  );
}

/** What would become of every line of a file; nothing is kept. */
export function useLookAtNotebookFile() {
  return useMutation({
    mutationFn: async (text: string) => {
      const ask = (key: string) => answered(client.POST("/api/notebook/file/look", { body: { key, text } }));
      return (await answerOf<NotebookAnswer>(ask)).answer;
    },
  });
}

/** Keep the lines of a file as asked, each answered. */
export function useNotebookFile() {
  return useNotebookChange((body: { text: string; keep: "all" | "good" }) =>
    answered(client.POST("/api/notebook/file", { body })),
  );
}

/** Of which kind something in the notebook is; nothing: of any. */
export type NotedKind = "" | Noted["kind"];

/** Everything that was noted at the machines, by words and kind. */
export function useEverything(asked: { find: string; kind: NotedKind; units: Units }) {
  return useQuery({
    queryKey: ["notebook", "everything", asked],
    queryFn: () => answered(client.GET("/api/notebook/everything", { params: { query: asked } })),
    placeholderData: keepPreviousData,
  });
}
