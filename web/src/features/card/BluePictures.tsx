import styled from "styled-components";
import type { CardAsk } from "../../api/client";
import { colour, size, space, type } from "../../shared/ui/theme";

const Choices = styled.div`
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: ${space(3)};
  button {
    display: grid;
    gap: ${space(1)};
    min-height: ${size.hand};
    padding: ${space(2)};
    background: ${colour("card")};
    border: ${size.thick} solid ${colour("ink")};
    border-radius: ${size.radius};
    font-size: ${type.run};
    cursor: pointer;
  }
  button[aria-pressed="true"] {
    background: ${colour("ink")};
    color: ${colour("card")};
  }
  svg {
    width: 100%;
    background: ${colour("sheet")};
    .jaw {
      fill: ${colour("jawFill")};
      stroke: ${colour("ink")};
    }
    .piece {
      fill: ${colour("partFill")};
      stroke: ${colour("ink")};
    }
    .blue {
      fill: none;
      stroke: ${colour("act")};
      stroke-width: 5;
      stroke-dasharray: 3 2;
    }
    text {
      fill: ${colour("ink")};
      font-size: 11px;
    }
  }
`;

/** From the floor at the left to the mouth at the right: where the blue lies on the jaw's face. */
const BLUE: Record<string, string> = {
  base: "M34 58 H66",
  tip: "M118 58 H150",
  even: "M34 58 H150",
};

type Props = {
  ask: CardAsk;
  chosen: string;
  onChoose: (value: string) => void;
};

/** Blue is read by choosing among three pictures, all to one drawing: the jaw above, the part below it. */
export function BluePictures({ ask, chosen, onChoose }: Props) {
  const options = ask.blanks.find((b) => b.kind === "choice")?.options ?? [];
  return (
    <Choices role="group" aria-label={ask.title}>
      {options.map((o) => (
        <button
          key={o.value}
          type="button"
          aria-pressed={o.value === chosen}
          onClick={() => onChoose(o.value)}
        >
          <svg viewBox="0 0 170 96" aria-hidden="true">
            <path className="jaw" d="M12 12 H156 V58 H32 V84 H12 Z" />
            <rect className="piece" x="34" y="62" width="130" height="28" />
            <path className="blue" d={BLUE[o.value]} />
            <text x="36" y="30">
              floor
            </text>
            <text x="128" y="30">
              tip
            </text>
          </svg>
          {o.label}
        </button>
      ))}
    </Choices>
  );
}
