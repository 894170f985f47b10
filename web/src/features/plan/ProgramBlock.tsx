import styled from "styled-components";
import type { Plan, Side, Stop } from "../../api/client";
import { colour, face, size, space, type } from "../../shared/ui/theme";

const Block = styled.section`
  h2 {
    margin-bottom: ${space(1)};
    font: 600 ${type.label} ${face.narrow};
  }
  a {
    display: inline-block;
    padding: ${space(1.5)} ${space(3)};
    border: ${size.line} solid ${colour("ink")};
    color: ${colour("ink")};
    text-decoration: none;
    &:hover {
      color: ${colour("act")};
      border-color: ${colour("act")};
    }
  }
  p {
    margin-top: ${space(1.5)};
    font: 400 ${type.label}/1.3 ${face.narrow};
    color: ${colour("soft")};
  }
  strong {
    color: ${colour("stop")};
  }
  li {
    padding: ${space(1)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
`;

type Props = { program: NonNullable<Stop["program"]>; side: Side; plan: Plan };

/** The jaw-boring program: taken from here, or what keeps it from being written. */
export function ProgramBlock({ program, side, plan }: Props) {
  const { ready, reasons } = program;
  const released = plan.release?.revision === (plan.at ?? plan.revision) ? plan.release?.number : null;
  const asked = `units=${plan.units}${released ? `&release=${released}` : ""}`;
  return (
    <Block aria-label="Jaw program">
      <h2>Jaw program</h2>
      {ready ? (
        <>
          <a href={`/api/runs/${plan.run.id}/sides/${side.id}/jaw-program?${asked}`} download>
            Take the jaw program
          </a>
          <p>
            {released ? (
              <b>
                Release {released} of draft {plan.release?.revision}.
              </b>
            ) : (
              <strong>DRAFT {plan.at ?? plan.revision}, NOT RELEASED.</strong>
            )}{" "}
            Its path is on the section. It calls no tool: call your own, check the units, run it block by
            block.
          </p>
        </>
      ) : (
        <>
          <p>It waits for:</p>
          <ul>
            {reasons.map((r) => (
              <li key={r}>{r}</li>
            ))}
          </ul>
        </>
      )}
    </Block>
  );
}
