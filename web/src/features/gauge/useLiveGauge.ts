import { useCallback, useEffect, useRef, useState } from "react";
import { type GaugeHeard, NoAnswer, said } from "../../api/client";
import { answerOf } from "../../shared/questions";
import { gaugeReadings, listenToGauge } from "./queries";

export type LiveState = {
  /** Readings as they arrive, (rpm, newtons). */
  points: readonly (readonly number[])[];
  total: number;
  isReading: boolean;
  /** How it ended, in a sentence. */
  told: string;
  good: boolean;
};

const IDLE: LiveState = { points: [], total: 0, isReading: false, told: "", good: true };
const EVERY_MS = 150;

/** Reads a gauge through the server: each reading is kept there before it is shown. */
export function useLiveGauge(onEnd: () => void) {
  const [state, setState] = useState(IDLE);
  const reading = useRef<AbortController | null>(null);
  const stop = useCallback(() => {
    reading.current?.abort();
    reading.current = null;
  }, []);
  useEffect(() => stop, [stop]);

  const start = useCallback(
    (runId: number, gauge: string) => {
      stop();
      setState({ ...IDLE, isReading: true });
      const controller = new AbortController();
      reading.current = controller;
      const { signal } = controller;
      let after = 0;

      async function take(): Promise<void> {
        const { points, total } = await gaugeReadings(runId, after);
        if (signal.aborted || points.length === 0) return;
        after = total;
        setState((now) => ({ ...now, points: [...now.points, ...points], total }));
      }

      async function follow(): Promise<void> {
        while (reading.current === controller) {
          await take().catch((error: unknown) => {
            if (!(error instanceof NoAnswer)) throw error; // it goes on once the server answers
          });
          await new Promise((resolve) => setTimeout(resolve, EVERY_MS));
        }
      }

      function end(told: string, good: boolean) {
        reading.current = null;
        setState((now) => ({ ...now, isReading: false, told, good }));
        onEnd();
      }

      follow().catch(() => {}); // how it ended is told by the question
      answerOf<GaugeHeard>((key) => listenToGauge(runId, gauge, key), { signal })
        .then(async ({ answer }) => {
          await take().catch(() => {});
          end(answer.told, answer.good);
        })
        // Never tried again by itself: that would read a second run into this one.
        .catch((error: unknown) => {
          if (!signal.aborted) end(`${said(error)} What arrived is kept; connect again to go on.`, false);
        });
    },
    [stop, onEnd],
  );
  const cut = useCallback(() => {
    stop();
    setState((now) => ({ ...now, isReading: false, told: "Stopped. What arrived is kept." }));
    onEnd();
  }, [stop, onEnd]);
  return { ...state, start, cut };
}
