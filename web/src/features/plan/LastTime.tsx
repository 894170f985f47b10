import styled from "styled-components";
import { colour, face, space, type } from "../../shared/ui/theme";
import { moment } from "../../shared/words";
import { useLastTime } from "./queries";

const Whole = styled.section`
  display: grid;
  gap: ${space(1)};
  margin-top: ${space(4)};
  h3 {
    font: 600 ${type.label} ${face.narrow};
  }
  p {
    font: 400 ${type.label}/1.4 ${face.narrow};
  }
  small {
    font-size: inherit;
    color: ${colour("soft")};
  }
`;

/** What was learnt of this part, or of its material, when it ran before; nothing where nothing was. */
export function LastTime({ runId }: { runId: number }) {
  const { data: found } = useLastTime(runId);
  if (!found || found.lessons.length === 0) return null;
  return (
    <Whole aria-label="Last time">
      <h3>Last time</h3>
      {found.lessons.map((l) => (
        <p key={`${l.at} ${l.text}`}>
          {l.text}{" "}
          <small>
            {l.part}
            {l.material && `, ${l.material}`}
            {l.machine && `, ${l.machine}`} · {l.by}, {moment(l.at)}
          </small>
        </p>
      ))}
    </Whole>
  );
}
