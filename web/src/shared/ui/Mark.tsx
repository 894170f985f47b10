import styled from "styled-components";
import { colour, size } from "./theme";

type State = "settled" | "open" | "stopped";

const Drawn = styled.svg`
  width: ${size.mark};
  height: ${size.mark};
  flex: none;
  overflow: visible;
  .ring {
    fill: ${colour("sheet")};
    stroke: ${colour("ink")};
    stroke-width: 1.5;
  }
  .punch {
    fill: ${colour("ink")};
  }
  .diamond {
    fill: ${colour("sheet")};
    stroke: ${colour("stop")};
    stroke-width: 1.5;
  }
`;

/** How a stop stands: ring = open, ring with punch = settled, diamond = stopped. Always beside its word. */
export function Mark({ state }: { state: State }) {
  return (
    <Drawn viewBox="0 0 18 18" aria-hidden="true">
      {state === "stopped" ? (
        <path className="diamond" d="M9 -1 L19 9 L9 19 L-1 9 Z" />
      ) : (
        <circle className="ring" cx="9" cy="9" r="8" />
      )}
      {state === "settled" && <circle className="punch" cx="9" cy="9" r="3" />}
    </Drawn>
  );
}
