import { answered, type CardDone, client, Refused, type Units } from "../api/client";
import { Outbox } from "./outbox";

/** What is done at a step of a card: it is ticked, skipped or opened again, or something was read there. */
export type Doing =
  | { state: "done" | "skipped" | "open"; reason: string }
  | { values: Record<string, string | boolean>; instrument: string; sure: boolean; seen: number };

/** Work at a card that the server has not answered yet. */
export type UnsentWork = {
  key: string;
  person: string;
  runId: number;
  run: string;
  release: number;
  step: string;
  units: Units;
  /** When it was done, by this tablet. */
  at: string;
  doing: Doing;
  /** Why the server does not take it; it waits until somebody decides. */
  refused?: string;
  /** It is far off what was predicted: it counts once somebody says that it is right. */
  asked?: string;
};

export const unsentWork = new Outbox<UnsentWork>("noble-anvil-unsent-work");

/** What waits for nothing but the server. */
export const isReady = (work: UnsentWork) => !work.refused && !work.asked;

function post({ key, runId, release, step, units, at, doing }: UnsentWork): Promise<CardDone> {
  const path = { params: { path: { run_id: runId } } };
  return "state" in doing
    ? answered(
        client.POST("/api/runs/{run_id}/card/marks", {
          ...path,
          body: { key, release, step, units, at, ...doing },
        }),
      )
    : answered(
        client.POST("/api/runs/{run_id}/card/readings", {
          ...path,
          body: { key, release, step, units, at, ...doing },
        }),
      );
}

const SIGNED_OUT = 401;
const BROKEN = 500;

/**
 * Send what waits of a person, the oldest first, each once; gives what the cards then say, by what was sent.
 *
 * Throws where the server does not answer, or asks to sign in: what waits goes on waiting. What it refuses waits with
 * its reason.
 */
export async function sendWork(person: string): Promise<{ work: UnsentWork; done: CardDone }[]> {
  const sent: { work: UnsentWork; done: CardDone }[] = [];
  for (const work of unsentWork.waiting(person).filter(isReady)) {
    try {
      sent.push({ work, done: await post(work) });
      unsentWork.drop(work.key);
    } catch (error) {
      if (!(error instanceof Refused) || error.status === SIGNED_OUT || error.status >= BROKEN) throw error;
      const asks = error.problem?.asks === "sure";
      unsentWork.note(work.key, asks ? { asked: error.message } : { refused: wordsOf(error) });
    }
  }
  return sent;
}

function wordsOf(refused: Refused): string {
  return refused.problem?.errors?.map((e) => e.message).join(" ") || refused.message;
}
