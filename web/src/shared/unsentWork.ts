import {
  answered,
  type CardDone,
  client,
  fieldErrors,
  Refused,
  type RunningDoings,
  type RunningKept,
  type Units,
} from "../api/client";
import { Outbox } from "./outbox";

type Mark = { state: "done" | "skipped" | "open"; reason: string };
type Reading = {
  values: Record<string, string | boolean>;
  instrument: string;
  sure: boolean;
  seen: number;
};

/** What is done while pieces come off, by where it is sent. */
export type RunningDoing = {
  [To in keyof RunningDoings]: { to: To; lot: string; body: RunningDoings[To] };
}[keyof RunningDoings];

/** What is done at a step of a card (it is ticked, skipped or opened again, or something was read), or in Running. */
export type Doing = Mark | Reading | RunningDoing;

/** Work at the machine that the server has not answered yet. */
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
  /** The same by field. */
  fields?: Record<string, string>;
  /** It is far off what was predicted: it counts once somebody says that it is right. */
  asked?: string;
};

export const unsentWork = new Outbox<UnsentWork>("noble-anvil-unsent-work");

/** What waits for nothing but the server. */
export const isReady = (work: UnsentWork) => !work.refused && !work.asked;

/** Whether it was done in Running, not at a step of the card. */
export const isRunning = (work: UnsentWork): work is UnsentWork & { doing: RunningDoing } =>
  "to" in work.doing;

/** Whether it holds something measured that nobody has judged yet. */
export function isUnjudged({ doing }: UnsentWork): boolean {
  if ("state" in doing) return false;
  return !("to" in doing) || ("values" in doing.body && Object.keys(doing.body.values ?? {}).length > 0);
}

const RUNNING = {
  pieces: "/api/runs/{run_id}/running/pieces",
  sizes: "/api/runs/{run_id}/running/sizes",
  changes: "/api/runs/{run_id}/running/changes",
  stops: "/api/runs/{run_id}/running/stops",
  corrections: "/api/runs/{run_id}/running/corrections",
} as const;

function post(work: UnsentWork): Promise<CardDone | RunningKept> {
  const { key, runId, release, step, units, at, doing } = work;
  const path = { params: { path: { run_id: runId } } };
  if ("to" in doing) {
    const body = { ...doing.body, lot: doing.lot, key, release, units, at };
    return answered(client.POST(RUNNING[doing.to], { ...path, body: body as never }));
  }
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

/** What was sent, and what the server says then: of a card what was done at it, of Running how the lot stands. */
export type Sent = { work: UnsentWork; done: CardDone | RunningKept };

/**
 * Send what waits of a person, the oldest first, each once; gives what the server says then.
 *
 * Throws where the server does not answer, or asks to sign in: what waits goes on waiting. What it refuses waits with
 * its reason.
 */
export async function sendWork(person: string): Promise<Sent[]> {
  const sent: Sent[] = [];
  for (const work of unsentWork.waiting(person).filter(isReady)) {
    try {
      sent.push({ work, done: await post(work) });
      unsentWork.drop(work.key);
    } catch (error) {
      if (!(error instanceof Refused) || error.status === SIGNED_OUT || error.status >= BROKEN) throw error;
      const asks = error.problem?.asks === "sure";
      const refused = { refused: wordsOf(error), fields: fieldErrors(error) };
      unsentWork.note(work.key, asks ? { asked: error.message } : refused);
    }
  }
  return sent;
}

function wordsOf(refused: Refused): string {
  return refused.problem?.errors?.map((e) => e.message).join(" ") || refused.message;
}
