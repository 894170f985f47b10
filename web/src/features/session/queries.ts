import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answered, client, Refused, type Role, type Session } from "../../api/client";
import { forgetCards } from "../../api/kept";
import { sendWork } from "../../shared/unsentWork";

/** Who is signed in; null when nobody is. */
export function useSession() {
  return useQuery({
    queryKey: ["session"],
    queryFn: async (): Promise<Session | null> => {
      try {
        return await answered(client.GET("/api/session"));
      } catch (error) {
        if (error instanceof Refused && error.status === 401) return null;
        throw error;
      }
    },
  });
}

/** Sign in with name and password. */
export function useSignIn() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (given: { username: string; password: string }) =>
      answered(client.POST("/api/session", { body: given })),
    onSuccess: (session) => queries.setQueryData(["session"], session),
  });
}

/** Sign out, here or wherever one is signed in. What waits here goes first; what does not go waits for its person. */
export function useSignOut(person: string) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (everywhere: boolean) => {
      await sendWork(person).catch(() => undefined);
      await answered(everywhere ? client.DELETE("/api/session/everywhere") : client.DELETE("/api/session"));
      await forgetCards(person);
    },
    onSuccess: () => {
      queries.clear();
      window.location.assign("/");
    },
  });
}

/** Under way while another role is taken: requests of the one before are refused meanwhile. */
export const LOOK_AS = ["look as"];

/** Look as another role, in the demo: the page begins anew, so that nothing read as the old one stays on it. */
export function useLookAs() {
  return useMutation({
    mutationKey: LOOK_AS,
    mutationFn: (role: Role) => answered(client.POST("/api/session/look-as", { body: { role } })),
    onSuccess: () => window.location.reload(),
  });
}

/** Change one's own password. */
export function useOwnPassword() {
  return useMutation({
    mutationFn: (given: { old: string; new: string }) =>
      answered(client.POST("/api/session/password", { body: given })),
  });
}
