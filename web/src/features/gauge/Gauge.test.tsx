import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, render, renderHook, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { type ChuckGauge, client, type GaugeRun, NoAnswer } from "../../api/client";
import { question } from "../../tests/plan";
import { GaugeChart } from "./GaugeChart";
import { NewRunForm } from "./NewRunForm";
import * as queries from "./queries";
import { RunPanel } from "./RunPanel";
import { TrendChart } from "./TrendChart";
import { useLiveGauge } from "./useLiveGauge";

const run: GaugeRun = {
  id: 5,
  on: "2026-11-20",
  by: "setter",
  source: "typed",
  side: "od",
  note: "",
  jaw_set: "",
  kept: false,
  pressure: "24 bar",
  static: "",
  condition: "",
  transmission: "",
  r_squared: "",
  unit: "kN",
  total: 3,
  readings: [
    { number: 1, rpm: 0, grip: 40, left_out: false, off: 0 },
    { number: 2, rpm: 1000, grip: 44, left_out: false, off: 6 },
    { number: 3, rpm: 2000, grip: 32, left_out: true, off: null },
  ],
  curve: [
    [0, 40],
    [1000, 38],
    [2000, 32],
  ],
  figures: [{ label: "Grip standing still", text: "40.0 kN" }],
  outliers: [2],
  notes: [{ level: "caution", code: "outliers", text: "1 of the readings stand off the curve." }],
  usable: true,
  problem: "",
};

const chuck: ChuckGauge = {
  key: "c",
  name: "Chuck",
  gauges: ["Bench gauge"],
  today: "2026-11-25",
  greased: [],
  grease: "",
  days: 90,
  runs: [],
  counts: null,
  trend: [],
  warning: "",
  jaw_sets: [],
};

function within(children: React.ReactNode) {
  return render(
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}>
      {children}
    </QueryClientProvider>,
  );
}
const ok = (data: unknown) => Promise.resolve({ response: new Response(null, { status: 200 }), data });

beforeEach(() => {
  vi.spyOn(HTMLElement.prototype, "clientWidth", "get").mockReturnValue(700);
  vi.spyOn(HTMLElement.prototype, "clientHeight", "get").mockReturnValue(380);
});

describe("GaugeChart", () => {
  it("marks outliers and what is left out, and draws how far each stands off", () => {
    const { container } = render(
      <GaugeChart spots={run.readings} curve={run.curve} outliers={run.outliers} unit="kN" />,
    );
    expect(container.querySelectorAll("circle[data-odd]")).toHaveLength(1);
    expect(container.querySelectorAll("circle[data-out]")).toHaveLength(1);
    const residuals = container.querySelectorAll("line.residual");
    expect(residuals).toHaveLength(2); // what is left out has none
    // 44 measured, six above the curve as the server says: the line goes up.
    expect(Number(residuals[1]?.getAttribute("y2"))).toBeLessThan(Number(residuals[1]?.getAttribute("y1")));
    expect(screen.getByRole("img").getAttribute("aria-label")).toContain("the farthest stands 6.0 kN off it");
  });

  it("draws readings alone while there is no fit", () => {
    const { container } = render(
      <GaugeChart
        spots={run.readings.map((s) => ({ ...s, off: null }))}
        curve={[]}
        outliers={[]}
        unit="kN"
      />,
    );
    expect(container.querySelector("path:not(.domain)")).toBeNull();
    expect(container.querySelectorAll("circle")).toHaveLength(3);
  });
});

describe("TrendChart", () => {
  it("goes from the first run to the last, with the days of greasing between them", () => {
    const points = [
      { on: "2026-10-01", condition: 0.95 },
      { on: "2026-11-01", condition: 0.88 },
    ];
    const { container } = render(<TrendChart points={points} greased={["2026-10-10", "2026-12-24"]} />);
    expect(screen.getByRole("img")).toHaveAttribute(
      "aria-label",
      "Condition from 0.95 on 2026-10-01 to 0.88 on 2026-11-01.",
    );
    expect(container.querySelectorAll("line[data-mark=dotted]")).toHaveLength(1);
  });
});

describe("RunPanel", () => {
  it("leaves outliers out, takes them in again, and lets plans count with the run", async () => {
    const post = vi
      .spyOn(client, "POST")
      .mockReset()
      .mockReturnValue(ok(run) as never);
    within(<RunPanel run={run} mayNote onGone={vi.fn()} />);
    await userEvent.click(screen.getByRole("button", { name: "leave the outliers out" }));
    expect(post.mock.calls[0]?.[1]).toMatchObject({ body: { numbers: [2], left_out: true } });
    await userEvent.click(screen.getByRole("button", { name: "take 1 in again" }));
    expect(post.mock.calls[1]?.[1]).toMatchObject({ body: { numbers: [3], left_out: false } });
    await userEvent.click(screen.getByRole("button", { name: "Let plans count with it" }));
    expect(post.mock.calls[2]?.[0]).toBe("/api/gauge-runs/{run_id}/keep");
  });

  it("offers nothing of a fit that may not count, of one that counts, or to who only looks", () => {
    within(<RunPanel run={{ ...run, usable: false, problem: "Too few." }} mayNote onGone={vi.fn()} />);
    expect(screen.queryByRole("button", { name: /count with it/ })).toBeNull();
    expect(screen.getByText("Too few.")).toBeInTheDocument();
    within(<RunPanel run={{ ...run, kept: true, condition: "0.90" }} mayNote onGone={vi.fn()} />);
    expect(screen.getByText("0.90")).toBeInTheDocument();
    expect(screen.queryByRole("button", { name: /count with it/ })).toBeNull();
  });
});

describe("NewRunForm", () => {
  it("tells at the field what is wrong, keeps what was typed, and reads from the gauge when asked", async () => {
    const errors = [{ field: "pressure", message: "This is needed." }];
    const post = vi.spyOn(client, "POST").mockReset();
    post.mockReturnValueOnce(
      Promise.resolve({
        response: new Response(null, { status: 422 }),
        error: { title: "x", errors },
      }) as never,
    );
    const onMade = vi.fn();
    within(<NewRunForm chuck={chuck} units="metric" onMade={onMade} />);
    await userEvent.type(screen.getByRole("textbox", { name: "Gauge height, mm" }), "60");
    await userEvent.click(screen.getByRole("button", { name: "Take these readings in" }));
    expect(await screen.findByText("This is needed.")).toBeInTheDocument();
    expect(screen.getByRole("textbox", { name: "Gauge height, mm" })).toHaveValue("60");
    post.mockReturnValueOnce(ok(run) as never);
    await userEvent.click(screen.getByRole("button", { name: "Read from Bench gauge" }));
    await vi.waitFor(() => expect(onMade).toHaveBeenCalledWith(run, "Bench gauge"));
    const [first, second] = post.mock.calls.map((c) => (c[1] as { body: { key: string } }).body.key);
    expect(first).toBe(second); // the same run, sent again
  });
});

describe("a CSV file", () => {
  it("is read into the readings, to be looked at before it is taken in", async () => {
    const { container } = within(<NewRunForm chuck={chuck} units="metric" onMade={vi.fn()} />);
    const input = container.querySelector<HTMLInputElement>('input[type="file"]');
    const text = "rpm; grip kN\n0; 40\n";
    const file = new File([text], "run.csv", { type: "text/csv" });
    // jsdom's files have no text()
    await userEvent.upload(input as HTMLInputElement, Object.assign(file, { text: async () => text }));
    await vi.waitFor(() => expect(screen.getByRole("textbox", { name: /Readings/ })).toHaveValue(text));
  });
});

describe("useLiveGauge", () => {
  beforeEach(() => {
    vi.restoreAllMocks();
  });
  const heard = { run: 5, total: 3, good: false, told: "It broke off." };
  const first: [number, number][] = [
    [0, 40_000],
    [10, 39_900],
  ];

  it("gathers readings as they arrive and ends with the server's sentence", async () => {
    const asked: number[] = [];
    vi.spyOn(queries, "gaugeReadings").mockImplementation(async (_, after) => {
      asked.push(after);
      return after === 0
        ? { points: first, total: 2 }
        : { points: after === 2 ? [[20, 39_800]] : [], total: 3 };
    });
    vi.spyOn(queries, "listenToGauge").mockResolvedValue(question());
    const stands = vi
      .spyOn(client, "GET")
      .mockResolvedValue({ response: new Response(null, { status: 200 }), data: question() } as never);
    const onEnd = vi.fn();
    const { result } = renderHook(() => useLiveGauge(onEnd));
    act(() => result.current.start(5, "Bench gauge"));
    await waitFor(() => expect(result.current).toMatchObject({ total: 3, isReading: true }));
    expect(result.current.points).toHaveLength(3);
    expect(asked.slice(0, 2)).toEqual([0, 2]);
    stands.mockResolvedValue({
      response: new Response(null, { status: 200 }),
      data: question(heard),
    } as never);
    await waitFor(() => expect(result.current.isReading).toBe(false), { timeout: 3000 });
    expect(result.current).toMatchObject({ told: "It broke off.", good: false });
    expect(onEnd).toHaveBeenCalledTimes(1);
  });

  it("does not connect again by itself when nothing answers, and can be cut", async () => {
    vi.spyOn(queries, "gaugeReadings").mockResolvedValue({ points: [], total: 0 });
    const ask = vi.spyOn(queries, "listenToGauge").mockRejectedValueOnce(new NoAnswer("Silent."));
    const { result } = renderHook(() => useLiveGauge(vi.fn()));
    act(() => result.current.start(5, "Bench gauge"));
    await waitFor(() => expect(result.current.told).toContain("What arrived is kept"));
    expect(ask).toHaveBeenCalledTimes(1);
    ask.mockResolvedValue(question());
    act(() => result.current.start(5, "Bench gauge"));
    act(() => result.current.cut());
    expect(result.current.told).toBe("Stopped. What arrived is kept.");
  });
});
