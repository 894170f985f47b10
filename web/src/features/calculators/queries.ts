import { useMutation, useQuery } from "@tanstack/react-query";
import { answered, client, type Units } from "../../api/client";

/** A declared field of a calculator. */
export type CalcField = {
  name: string;
  label: string;
  help: string;
  kind: "quantity" | "choice" | "flag" | "text" | "group";
  required: boolean;
  many: boolean;
  unit?: string;
  default?: unknown;
  options?: Record<string, string>;
  fields?: CalcField[];
};
export type CalcEntry = string | boolean | { [name: string]: CalcEntry };
export type CalcStep = {
  symbol: string;
  label: string;
  formula: string;
  substituted: string;
  value: number;
  unit: string;
  source: string;
  symbols: Record<string, string>;
};
export type CalcNote = { level: "info" | "caution" | "stop"; code: string; text: string };
/** A figure of the answer as the core prints it. */
export type CalcFound = { name: string; label: string; unit: string; text: string };
export type CalcAnswer = { answers: CalcFound[]; working: CalcStep[]; notes: CalcNote[] };
export type Calculator = { name: string; summary: string; fields: CalcField[] };

/** Every calculator with its fields, but those that take whole lists: a plan fills those. */
export function useCalculators() {
  return useQuery({
    queryKey: ["calculators"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: async () => {
      const found = (await answered(client.GET("/api/calc"))) as unknown as Calculator[];
      const hasList = (fields: CalcField[]): boolean => fields.some((f) => f.many || hasList(f.fields ?? []));
      return found.filter((c) => !hasList(c.fields));
    },
  });
}

/** One answer of a calculator; what is wrong is told at its field. */
export function useCalculate(name: string) {
  return useMutation({
    mutationFn: ({ body, units }: { body: Record<string, CalcEntry>; units: Units }) =>
      // Each calculator has a path of its own with the same shape of question; the name is one of the list's.
      answered(
        client.POST(`/api/calc/${name}` as "/api/calc/cut", {
          params: { query: { units } },
          body: body as never,
        }),
      ) as unknown as Promise<CalcAnswer>,
  });
}
