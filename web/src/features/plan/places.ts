import type { Plan } from "../../api/client";

/** Where the facts of a set-up are entered, by the part of the path after its id. */
const OF_A_SIDE: Record<string, string> = {
  chuck: "hold",
  jaw_blank: "hold",
  collet: "hold",
  hold: "hold",
  jaws: "jaws",
  jaw_set: "jaws",
  force: "force",
  cuts: "cuts",
  clamp_rpm: "cuts",
};

const OF_THE_PLAN: Record<string, string> = {
  part: "part",
  machine: "part",
  material: "part",
  sides: "sides",
  setups: "sides",
  departures: "force",
};

/** The key of the stop at which a path is entered; null where it is of no stop, or of a side that is gone. */
export function stopOf(path: string, plan: Plan): string | null {
  const [first = "", setup = "", group = ""] = path.split(".");
  const name = first === "setups" && group ? OF_A_SIDE[group] : OF_THE_PLAN[first];
  const wanted = plan.stops.filter(
    (s) => s.name === name && (!group || s.setup === null || s.setup === setup),
  );
  return wanted[0]?.key ?? null;
}
