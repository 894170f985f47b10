import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
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

export type PersonChange = {
  role?: Role;
  active?: boolean;
  password?: string;
  lift?: boolean;
  end_sessions?: boolean;
};

/** Give somebody another role or password, close or open their account, let them in again, end their sessions. */
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

/** The trail, the newest first; more of it as it is asked for. */
export function useTrail() {
  return useInfiniteQuery({
    queryKey: ["trail"],
    queryFn: ({ pageParam }) =>
      answered(client.GET("/api/trail", { params: { query: pageParam ? { before: pageParam } : {} } })),
    initialPageParam: 0,
    getNextPageParam: (last) => (last.more ? last.entries.at(-1)?.id : undefined),
  });
}
