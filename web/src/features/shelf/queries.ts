import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import {
  answered,
  client,
  type Effects,
  type FileAnswer,
  type Item,
  type KindName,
  type Units,
} from "../../api/client";
import { answerOf } from "../../shared/questions";

export type Entry = string | string[];

/** What was typed over an item: entries by field, the chart's text, fields confirmed as the shop's own. */
export type Edits = {
  fields: Readonly<Record<string, Entry>>;
  chart: string | null;
  confirmed: readonly string[];
};

export const NO_EDITS: Edits = { fields: {}, chart: null, confirmed: [] };

/** Everything on the shelf, a line an item. */
export function useShelf() {
  return useQuery({ queryKey: ["shelf"], queryFn: () => answered(client.GET("/api/shelf")) });
}

const itemKey = (kind: KindName, key: string | null, units: Units) => ["shelf item", kind, key, units];

/** One item, or the form of a new one (`key` null). */
export function useItem(kind: KindName, key: string | null, units: Units) {
  return useQuery({
    queryKey: itemKey(kind, key, units),
    queryFn: () =>
      key === null
        ? answered(client.GET("/api/shelf/{kind}/new", { params: { path: { kind }, query: { units } } }))
        : answered(
            client.GET("/api/shelf/{kind}/items/{key}", {
              params: { path: { kind, key }, query: { units } },
            }),
          ),
  });
}

/** The item as it would be, with the runs that would move; nothing is kept. */
export function previewItem(
  kind: KindName,
  key: string | null,
  edits: Edits,
  units: Units,
  signal: AbortSignal,
): Promise<Item> {
  const body = { key, fields: edits.fields, chart: edits.chart, units };
  return answered(
    client.POST("/api/shelf/{kind}/preview", {
      params: { path: { kind } },
      body,
      signal,
    }),
  );
}

/** The plans that a change of an item would move; nothing is kept. */
export function useEffectsOf(
  kind: KindName,
  key: string | null,
  edits: Edits,
  units: Units,
  wanted: boolean,
) {
  return useQuery({
    queryKey: ["effects", kind, key, edits.fields, edits.chart, units],
    enabled: wanted && key !== null,
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) => {
      const ask = (question: string) =>
        answered(
          client.POST("/api/shelf/{kind}/items/{key}/effects", {
            params: { path: { kind, key: key ?? "" } },
            body: { key: question, fields: edits.fields, chart: edits.chart, units },
          }),
        );
      return (await answerOf<Effects>(ask, { signal })).answer;
    },
  });
}

function useShelfChange<Given, Answer>(change: (given: Given) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () =>
      Promise.all(
        [["shelf"], ["shelf item"], ["bench"], ["plan"], ["find"]].map((queryKey) =>
          queries.invalidateQueries({ queryKey }),
        ),
      ),
  });
}

export type Kept = { kind: KindName; key: string | null; edits: Edits; base: number; units: Units };

/** Keep an item: a new one, or a change that the runs follow. */
export function useKeepItem() {
  return useShelfChange(({ kind, key, edits, base, units }: Kept): Promise<Item> => {
    const headers = { "X-Units": units };
    const body = { ...edits, confirmed: [...edits.confirmed], base_revision: base, units };
    return key === null
      ? answered(client.POST("/api/shelf/{kind}/items", { params: { path: { kind } }, headers, body }))
      : answered(
          client.PATCH("/api/shelf/{kind}/items/{key}", { params: { path: { kind, key } }, headers, body }),
        );
  });
}

/** Take an item off the shelf. */
export function useRemoveItem() {
  return useShelfChange(({ kind, key }: { kind: KindName; key: string }) =>
    answered(client.DELETE("/api/shelf/{kind}/items/{key}", { params: { path: { kind, key } } })),
  );
}

export type Life = { what: string; size: string; removal: string; note: string };

/** Note what happened to a jaw set; its figures and the runs that take it follow. */
export function useNoteLife() {
  return useShelfChange(({ key, life, units }: { key: string; life: Life; units: Units }) => {
    const given = (text: string) => (text.trim() === "" ? null : text);
    const body = {
      what: life.what,
      size: given(life.size),
      removal: given(life.removal),
      note: given(life.note),
      units,
    };
    return answered(
      client.POST("/api/shelf/jaw_set/items/{key}/life", {
        params: { path: { key } },
        body,
      }),
    );
  });
}

/** What would become of every line of a CSV file; nothing is kept. */
export function useLookAtFile(kind: KindName) {
  return useMutation({
    mutationFn: async (text: string) => {
      const ask = (key: string) =>
        answered(
          client.POST("/api/shelf/{kind}/file/look", { params: { path: { kind } }, body: { key, text } }),
        );
      return (await answerOf<FileAnswer>(ask)).answer;
    },
  });
}

export type TakenFile = { kind: KindName; text: string; keep: "all" | "good" };

/** Keep the lines of a CSV file as asked, each answered. */
export function useTakeFile() {
  return useShelfChange(({ kind, text, keep }: TakenFile) =>
    answered(client.POST("/api/shelf/{kind}/file", { params: { path: { kind } }, body: { text, keep } })),
  );
}

const READ = [
  "chuck",
  "jaw_set",
  "material",
  "machine",
  "ring",
  "insert",
  "groove_insert",
  "thread_insert",
  "holder",
  "drill",
  "blade",
] as const;
type Read = (typeof READ)[number];

/** Whether readings at cards are kept against items of a kind. */
export function isRead(kind: string): kind is Read {
  return (READ as readonly string[]).includes(kind);
}

/** What was read at cards with an item, beside what was predicted. */
export function useReadings(kind: string, key: string, units: Units) {
  return useQuery({
    queryKey: ["readings", kind, key, units],
    enabled: isRead(kind),
    queryFn: () =>
      answered(
        client.GET("/api/shelf/{kind}/{key}/readings", {
          params: { path: { kind: kind as Read, key }, query: { units } },
        }),
      ),
  });
}
