import { answered, client, NoAnswer, type Question, Refused } from "../api/client";

/** How a question that takes long stands: how many wait before it, or how far it has come of how much. */
export type Standing = Pick<Question, "state" | "before" | "done" | "of" | "told">;

/** Nobody answers this question any more: what it was asked of has changed, or it was taken back. */
export class Dropped extends Error {}

type Options = { signal?: AbortSignal; onStanding?: (standing: Standing) => void };

const FIRST_MS = 80;
const LONGEST_MS = 400;

function pause(ms: number, signal: AbortSignal | undefined): Promise<void> {
  return new Promise((resolve) => {
    const timer = setTimeout(resolve, ms);
    signal?.addEventListener("abort", () => {
      clearTimeout(timer);
      resolve();
    });
  });
}

async function standing(key: string): Promise<Question | null> {
  try {
    return await answered(client.GET("/api/questions/{key}", { params: { path: { key } } }));
  } catch (error) {
    if (error instanceof NoAnswer) return null; // asked again
    throw error;
  }
}

/** Take a question back; what computes it is ended. */
export function cancelQuestion(key: string): void {
  void client.DELETE("/api/questions/{key}", { params: { path: { key } } }).catch(() => {});
}

/**
 * Ask a question that takes long, and wait for its answer; aborted, it is taken back.
 *
 * Throws Refused where there is no answer to it, Dropped where nobody answers it any more.
 */
export async function answerOf<A>(
  ask: (key: string) => Promise<Question>,
  { signal, onStanding }: Options = {},
): Promise<{ key: string; answer: A }> {
  let question = await ask(crypto.randomUUID());
  for (let wait = FIRST_MS; ; wait = Math.min(LONGEST_MS, wait * 1.3)) {
    const { key, state } = question;
    if (state === "done") return { key, answer: question.answer as A };
    if (state === "failed" && question.problem) throw new Refused(question.problem.status, question.problem);
    if (state === "failed") throw new Error(question.told);
    if (state === "dropped" || state === "cancelled") throw new Dropped(question.told);
    onStanding?.(question);
    await pause(wait, signal);
    if (signal?.aborted) {
      cancelQuestion(key);
      throw new DOMException("Taken back.", "AbortError");
    }
    question = (await standing(key)) ?? question;
  }
}

/** How a question stands, in a few words. */
export function standingWords({ state, before, done, of, told }: Standing): string {
  if (told && done === 0) return told;
  if (state === "waiting") return before === 0 ? "next in turn" : `${before} before it`;
  return of > 0 ? `${Math.min(done + 1, of)} of ${of}` : "";
}
