import styled from "styled-components";
import { TextButton } from "../../shared/ui/Button";
import { colour, face, space, type } from "../../shared/ui/theme";
import { useStays } from "./machineQueries";

const Line = styled.p`
  margin-top: ${space(4)};
  font: 400 ${type.label}/1.4 ${face.narrow};
  color: ${colour("soft")};
`;

type Props = {
  runId: number;
  revision: number;
  /** Count so many tools as standing there already; null: the plan is not this person's to change. */
  onTake: ((tools: number) => void) | null;
};

/** The tools that stand on the turret from the run before, and whether the set-up counts them. */
export function Staying({ runId, revision, onTake }: Props) {
  const { data: found } = useStays(runId, revision);
  if (!found) return null;
  return (
    <Line>
      {found.told}{" "}
      {found.tools === found.now
        ? found.now > 0 && "The set-up counts them."
        : onTake && (
            <TextButton onPress={() => onTake(found.tools)}>
              {found.tools === 0 ? "Count none as standing" : `Count ${found.tools} as standing`}
            </TextButton>
          )}
    </Line>
  );
}
