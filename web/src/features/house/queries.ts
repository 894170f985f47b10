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
