import { render, screen, within } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import * as queries from "./machineQueries";
import { SetupTook } from "./SetupTook";

type Found = NonNullable<ReturnType<typeof queries.useSetupTook>["data"]>;

function show(found: Found) {
  vi.spyOn(queries, "useSetupTook").mockReturnValue({ data: found } as ReturnType<
    typeof queries.useSetupTook
  >);
  render(<SetupTook runId={1} revision={4} />);
}

describe("SetupTook", () => {
  it("puts what was planned and what it took side by side, steps below", () => {
    show({
      told: "Release 1 of 26 Nov 2026: 10 min at its card, 3 steps ticked.",
      tasks: [
        {
          task: "jaws mounted and bored",
          planned: "25 min",
          took: "10 min",
          steps: [
            { title: "Clean serrations", minutes: "" },
            { title: "Mount the jaws", minutes: "4 min" },
          ],
        },
        { task: "program proved", planned: "15 min", took: "", steps: [] },
      ],
    });
    expect(screen.getByText(/Last time: Release 1/)).toBeInTheDocument();
    const [, jaws] = screen.getAllByRole("row");
    expect(jaws).toHaveTextContent(/25 min10 min/);
    expect(
      within(screen.getByText("Mount the jaws").closest("tr") as HTMLElement).getByText("4 min"),
    ).toBeInTheDocument();
    expect(screen.getByText("program proved").closest("tr")).toHaveTextContent("not ticked");
  });

  it("says where there is none yet", () => {
    show({ told: "No card of this part was worked through yet.", tasks: [] });
    expect(screen.getByText(/No card of this part/)).toBeInTheDocument();
    expect(screen.queryByRole("table")).toBeNull();
  });
});
