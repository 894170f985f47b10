import { useQuery } from "@tanstack/react-query";
import { answered, client } from "../../api/client";

/** Every run with how it stands. */
export function useBench() {
  return useQuery({ queryKey: ["bench"], queryFn: () => answered(client.GET("/api/runs")) });
}
