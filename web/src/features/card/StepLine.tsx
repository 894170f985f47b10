import styled from "styled-components";
import type { CardStep } from "../../api/client";
import { colour, fold, size, space } from "../../shared/ui/theme";
import type { Standing } from "./standing";

const Line = styled.ol`
  display: flex;
  flex-wrap: wrap;
  padding: ${space(2)} ${space(5)};
  list-style: none;
  li {
    position: relative;
    flex: 1 0 ${space(6)};
    display: grid;
    justify-content: center;
  }
  li::before {
    content: "";
    position: absolute;
    inset: 50% 0 auto;
    border-top: ${size.thick} solid ${colour("ink")};
  }
  button {
    position: relative;
    display: grid;
    place-content: center;
    width: ${space(6)};
    height: ${space(6)};
    padding: 0;
    background: none;
    border: 0;
    cursor: pointer;
  }
  /* There the words say which step it is of how many. */
  @media ${fold.phone} {
    display: none;
  }
  svg {
    width: 18px;
    height: 18px;
    .ring {
      fill: ${colour("sheet")};
      stroke: ${colour("ink")};
      stroke-width: 1.5;
    }
    .punch {
      fill: ${colour("ink")};
    }
    .here {
      fill: ${colour("act")};
    }
    .skipped {
      stroke: ${colour("ink")};
      stroke-width: 1.5;
    }
  }
`;

type Props = {
  steps: readonly CardStep[];
  at: number;
  standing: Standing;
  onGo: (place: number) => void;
};

/** Every step as a mark: open, done, skipped, the one in view; a press goes there. */
export function StepLine({ steps, at, standing, onGo }: Props) {
  return (
    <Line aria-label="Steps">
      {steps.map((step, place) => {
        const state = standing.word(step.id);
        return (
          <li key={step.id}>
            <button
              type="button"
              aria-label={`${step.title}: ${state}`}
              aria-current={place === at ? "step" : undefined}
              onClick={() => onGo(place)}
            >
              <svg viewBox="0 0 18 18" aria-hidden="true">
                {place === at ? (
                  <circle className="here" cx="9" cy="9" r="9" />
                ) : (
                  <circle className="ring" cx="9" cy="9" r="7" />
                )}
                {state === "done" && place !== at && <circle className="punch" cx="9" cy="9" r="3" />}
                {state === "waits" && place !== at && <path className="skipped" d="M9 5 V9 H12" />}
                {state === "skipped" && place !== at && <path className="skipped" d="M4 14 L14 4" />}
              </svg>
            </button>
          </li>
        );
      })}
    </Line>
  );
}
