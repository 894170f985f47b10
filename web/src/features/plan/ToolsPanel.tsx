import { useState } from "react";
import { Input, SearchField } from "react-aria-components";
import styled from "styled-components";
import { TextButton } from "../../shared/ui/Button";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { type OfCut, useToolsForCut } from "./cutQueries";

const Panel = styled.section`
  margin-top: ${space(3)};
  input {
    width: min(360px, 100%);
    padding: ${space(1)} 0;
    background: transparent;
    border: 0;
    border-bottom: ${size.thick} solid ${colour("act")};
    border-radius: 0;
  }
  ul {
    margin: ${space(2)} 0 0;
    padding: 0;
    list-style: none;
  }
  li {
    padding: ${space(1)};
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  li[data-rejected] b {
    font-weight: 400;
    color: ${colour("soft")};
  }
  small {
    display: block;
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  li[data-rejected] small {
    color: ${colour("stop")};
  }
`;

type Props = {
  of: OfCut;
  name: string;
  mayTake: boolean;
  onTake: (path: string, tool: string) => void;
};

/** Every tool of the shelf for one cut: what fits in order, and why each of the others does not. */
export function ToolsPanel({ of, name, mayTake, onTake }: Props) {
  const [open, setOpen] = useState(false);
  const [find, setFind] = useState("");
  const { data, isError } = useToolsForCut(of, find, open);
  if (!open)
    return (
      <Panel>
        <TextButton onPress={() => setOpen(true)}>every tool for {name}, and why not</TextButton>
      </Panel>
    );
  return (
    <Panel aria-label={`Every tool for ${name}`}>
      <SearchField aria-label="Find a tool" value={find} onChange={setFind} autoFocus>
        <Input placeholder="find a tool: designation, holder, diameter" />
      </SearchField>
      <TextButton onPress={() => setOpen(false)}>close</TextButton>
      {isError && <p role="alert">The tools are not answered just now.</p>}
      {data && (
        <>
          <p role="status">
            {data.fit} fit, {data.rejected} do not
            {data.fit + data.rejected > data.tools.length && `; the first ${data.tools.length} are shown`}.
          </p>
          <ul>
            {data.tools.map((t) => (
              <li key={t.key} data-rejected={t.rejected ? true : undefined}>
                <b>{t.name}</b>
                {!t.rejected && ` · ${t.score}`} {t.chosen && "· chosen"}{" "}
                {mayTake && !t.rejected && !t.chosen && (
                  <TextButton aria-label={`take ${t.name}`} onPress={() => onTake(data.path, t.key)}>
                    take
                  </TextButton>
                )}
                <small>{t.rejected ? `Not this one: ${t.rejected}.` : t.why.join("; ")}</small>
              </li>
            ))}
          </ul>
        </>
      )}
    </Panel>
  );
}
