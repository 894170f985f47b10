import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answered, client } from "../../api/client";
import type { Offered } from "../../shared/find/LocalHits";

/** Runs and shelf items that have every one of the words; facts too of the plan in view. */
export function useFind(words: string, plan: Offered["plan"]) {
  return useQuery({
    queryKey: ["find", words, plan],
    enabled: words.trim() !== "",
    placeholderData: keepPreviousData,
    queryFn: () => answered(client.GET("/api/find", { params: { query: { words, ...plan } } })),
  });
}
