import type { ReactNode } from "react";
import type { Session } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Blank } from "../../shared/ui/Page";
import { useSession } from "./queries";
import { SignIn } from "./SignIn";

type Props = { children: (session: Session) => ReactNode };

/** Lets through who is signed in, and asks everybody else to sign in. */
export function Gate({ children }: Props) {
  const session = useSession();
  if (session.isPending) return <Blank>Opening …</Blank>;
  if (session.isError)
    return (
      <Blank>
        <p>The server does not answer. Is ./anvil start running?</p>
        <Button onPress={() => session.refetch()}>Try again</Button>
      </Blank>
    );
  return session.data ? children(session.data) : <SignIn />;
}
