import { useRef } from "react";
import styled from "styled-components";
import { colour, face, space, type } from "../../shared/ui/theme";
import { useInView } from "../../shared/ui/useInView";
import { CompareTable } from "./CompareTable";
import { type OfSide, useCheck } from "./queries";

const Said = styled.p`
  margin-top: ${space(2)};
  font: 400 ${type.small} ${face.narrow};
  color: ${colour("soft")};
`;

type Props = { check: string; of: OfSide };

/** A question that is solved by itself: asked for apart from the plan, shown as it arrives. */
export function SolvedTable({ check, of }: Props) {
  const place = useRef<HTMLDivElement>(null);
  const isInView = useInView(place, `${check} ${of.runId} ${of.setup}`);
  const { data, isFetching, isError } = useCheck(check, of, isInView);
  const name = check.replaceAll("-", " ");
  if (isError) return <Said>The {name} is not answered just now.</Said>;
  if (!data)
    return (
      <div ref={place}>
        <Said>{isFetching ? `Solving the ${name} …` : ""}</Said>
      </div>
    );
  if (!data.table) return null;
  return (
    <>
      <CompareTable table={data.table} />
      <Said>
        Solved for draft {data.revision}: {data.table.words}
      </Said>
    </>
  );
}
