import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answered, client, type Role } from "../../api/client";

const KEY = ["people"];

/** Everybody who may sign in. */
export function usePeople() {
  return useQuery({ queryKey: KEY, queryFn: () => answered(client.GET("/api/people")) });
}

/** Add somebody. */
export function useAddPerson() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (given: { username: string; password: string; role: Role }) =>
      answered(client.POST("/api/people", { body: given })),
    onSuccess: () => queries.invalidateQueries({ queryKey: KEY }),
  });
}

export type PersonChange = { role?: Role; active?: boolean; password?: string };

/** Give somebody another role or password, or close or open their account. */
export function useChangePerson() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, change }: { id: number; change: PersonChange }) =>
      answered(
        client.PATCH("/api/people/{person_id}", { params: { path: { person_id: id } }, body: change }),
      ),
    onSuccess: () => queries.invalidateQueries({ queryKey: KEY }),
  });
}
