import { type ReactNode, useEffect } from "react";
import styled from "styled-components";
import { TextButton } from "../../shared/ui/Button";
import { AppHeader, Column } from "../../shared/ui/Page";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { NotOpened } from "./NotOpened";
import { useTrail } from "./queries";

const Entry = styled.li`
  display: grid;
  grid-template-columns: 11.5em minmax(0, 1fr) auto;
  gap: 0 ${space(4)};
  padding: ${space(1.5)} 0;
  border-bottom: ${size.line} solid ${colour("hairline")};
  time,
  small {
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  &[data-what="refused"] b,
  &[data-what="resting"] b {
    color: ${colour("caution")};
  }
  span {
    overflow-wrap: anywhere;
  }
  @media ${fold.phone} {
    grid-template-columns: 1fr auto;
    time {
      grid-column: 1 / -1;
    }
  }
`;

const at = (iso: string) =>
  new Date(iso).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "medium" });

/** Who came in, who did not, and what was done to the doors, the rules and the plans; read, and changed by nobody. */
export function Trail({ tools }: { tools: ReactNode }) {
  const trail = useTrail();
  useEffect(() => {
    document.title = "Trail · Noble Anvil";
  }, []);
  if (trail.isError)
    return <NotOpened title="Trail" tools={tools} error={trail.error} onAgain={() => trail.refetch()} />;
  return (
    <>
      <AppHeader title="Trail" tools={tools} />
      <Column>
        <h2>What happened</h2>
        <ul>
          {trail.data?.pages
            .flatMap((page) => page.entries)
            .map((e) => (
              <Entry key={e.id} data-what={e.what}>
                <time dateTime={e.at}>{at(e.at)}</time>
                <span>
                  <b>{e.who || "no name"}</b> {e.words}
                  {e.about && `: ${e.about}`}
                </span>
                <small>{e.address}</small>
              </Entry>
            ))}
        </ul>
        {trail.hasNextPage && <TextButton onPress={() => trail.fetchNextPage()}>earlier</TextButton>}
      </Column>
    </>
  );
}
