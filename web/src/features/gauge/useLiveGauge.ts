import { useCallback, useEffect, useRef, useState } from "react";

export type LiveState = {
  /** Readings as they arrive, (rpm, newtons). */
  points: readonly (readonly [number, number])[];
  total: number;
  isReading: boolean;
  /** How it ended, in a sentence. */
  told: string;
  good: boolean;
};

const IDLE: LiveState = { points: [], total: 0, isReading: false, told: "", good: true };

/** Reads a gauge through the server: readings arrive as events, each kept before it is shown. */
export function useLiveGauge(onEnd: () => void) {
  const [state, setState] = useState(IDLE);
  const source = useRef<EventSource | null>(null);
  const stop = useCallback(() => {
    source.current?.close();
    source.current = null;
  }, []);
  useEffect(() => stop, [stop]);

  const start = useCallback(
    (runId: number, gauge: string) => {
      stop();
      setState({ ...IDLE, isReading: true });
      const events = new EventSource(`/api/gauge-runs/${runId}/live?gauge=${encodeURIComponent(gauge)}`);
      source.current = events;
      const end = (told: string, good: boolean) => {
        stop();
        setState((now) => ({ ...now, isReading: false, told, good }));
        onEnd();
      };
      events.addEventListener("readings", (event) => {
        const { points, total } = JSON.parse((event as MessageEvent<string>).data) as {
          points: [number, number][];
          total: number;
        };
        setState((now) => ({ ...now, points: [...now.points, ...points], total }));
      });
      events.addEventListener("end", (event) => {
        const { told, good } = JSON.parse((event as MessageEvent<string>).data) as {
          told: string;
          good: boolean;
        };
        end(told, good);
      });
      // Never tried again by itself: that would read a second run into this one.
      events.onerror = () =>
        end("The server broke off. What arrived is kept; connect again to go on.", false);
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
