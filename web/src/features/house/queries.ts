import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answered, client } from "../../api/client";

const KEY = ["house rules"];

/** The house rules with their history. */
export function useHouseRules() {
  return useQuery({ queryKey: KEY, queryFn: () => answered(client.GET("/api/rules")) });
}

export type RulesChange = { base_number: number; values: Record<string, string>; reason: string };

/** Change house rules: plans tell what they would move, and take them when they are told to. */
export function useChangeRules() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (change: RulesChange) => answered(client.POST("/api/rules", { body: change })),
    onSuccess: (page) => {
      queries.setQueryData(KEY, page);
      return queries.invalidateQueries({ queryKey: ["plan"] });
    },
  });
}

const CALENDAR = ["calendar"];

/** When the shop works. */
export function useCalendar() {
  return useQuery({ queryKey: CALENDAR, queryFn: () => answered(client.GET("/api/calendar")) });
}

export type CalendarChange = { base_number: number; values: Record<string, string>; file?: string };

/** Change when the shop works: it counts for every plan at once. */
export function useChangeCalendar() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (change: CalendarChange) => answered(client.POST("/api/calendar", { body: change })),
    onSuccess: (page) => {
      queries.setQueryData(CALENDAR, page);
      void queries.invalidateQueries({ queryKey: ["board"] });
      return queries.invalidateQueries({ queryKey: ["plan"] });
    },
  });
}
