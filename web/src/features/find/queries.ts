import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { answered, client } from "../../api/client";

/** Runs and shelf items that have every one of the words. */
export function useFind(words: string) {
  return useQuery({
    queryKey: ["find", words],
    enabled: words.trim() !== "",
    placeholderData: keepPreviousData,
    queryFn: () => answered(client.GET("/api/find", { params: { query: { words } } })),
  });
}
