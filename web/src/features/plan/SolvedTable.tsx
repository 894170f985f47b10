import styled from "styled-components";
import type { Units } from "../../api/client";
import { colour, face, space, type } from "../../shared/ui/theme";
import { CompareTable } from "./CompareTable";
import { type Check, useCheck } from "./queries";

const Said = styled.p`
  margin-top: ${space(2)};
  font: 400 ${type.small} ${face.narrow};
  color: ${colour("soft")};
`;

const CHECKS: Record<Check, { name: string; means: string }> = {
  contact: {
    name: "real contact",
    means:
      "the elastic wall in rigid jaws that push and never pull, on diameter from the piece’s nominal. Even pressure is what the plan counts with.",
  },
  "limit-analysis": {
    name: "limit analysis",
    means:
      "the least grip for which any sharing of forces along the jaws, each within its friction, holds the load in its worst direction. The closed form is what the plan counts with, times the safety.",
  },
};

type Props = { check: Check; runId: number; index: number; units: Units; revision: number };

/** A question that is solved by itself: asked for apart from the plan, shown as it arrives. */
export function SolvedTable({ check, runId, index, units, revision }: Props) {
  const { data, isFetching, isError } = useCheck(check, runId, index, units, revision);
  const { name, means } = CHECKS[check];
  if (isError) return <Said>The {name} is not answered just now.</Said>;
  if (!data) return <Said>{isFetching ? `Solving the ${name} …` : ""}</Said>;
  if (!data.table) return null;
  return (
    <>
      <CompareTable table={data.table} onTake={() => {}} />
      <Said>
        Solved for draft {data.revision}: {means}
      </Said>
    </>
  );
}
