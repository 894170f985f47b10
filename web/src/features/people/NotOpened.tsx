import type { ReactNode } from "react";
import { Link } from "react-router";
import { Refused } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { AppHeader, Column } from "../../shared/ui/Page";

type Props = { title: string; tools: ReactNode; error: Error; onAgain: () => void };

/** A place that did not open: why, and the way on. The head stays, so that one is somewhere. */
export function NotOpened({ title, tools, error, onAgain }: Props) {
  const refused = error instanceof Refused && error.status < 500 ? error : null;
  return (
    <>
      <AppHeader title={title} tools={tools} />
      <Column>
        <h2>{title}</h2>
        <p role="alert">{refused ? refused.message : "The server does not answer."}</p>
        <p>{refused ? <Link to="/">To the bench</Link> : <Button onPress={onAgain}>Try again</Button>}</p>
      </Column>
    </>
  );
}
