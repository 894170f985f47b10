import { useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import { Refused } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { colour, space, type } from "../../shared/ui/theme";
import { unsentWork } from "../../shared/unsentWork";
import { counted } from "../../shared/words";
import { useSignIn } from "./queries";

const Page = styled.main`
  display: grid;
  place-content: center;
  min-height: 100%;
  padding: ${space(6)};
`;

const Card = styled(Form)`
  display: grid;
  gap: ${space(4)};
  width: min(360px, 100%);
  h1 {
    font-size: ${type.run};
  }
`;

const Wrong = styled.p`
  min-height: 1.4em;
  color: ${colour("stop")};
`;

/** Sign in with name and password. */
export function SignIn() {
  const [username, setUsername] = useState("");
  const [password, setPassword] = useState("");
  const signIn = useSignIn();
  const waiting = new Map<string, number>();
  for (const { person } of unsentWork.all()) waiting.set(person, (waiting.get(person) ?? 0) + 1);
  const wrong = signIn.error
    ? signIn.error instanceof Refused
      ? signIn.error.message
      : "The server does not answer. Try again."
    : "";
  return (
    <Page>
      <Card
        onSubmit={(event) => {
          event.preventDefault();
          signIn.mutate({ username, password });
        }}
      >
        <h1>Noble Anvil</h1>
        <Entry label="Name" value={username} onChange={setUsername} isRequired autoComplete="username" />
        <Entry
          label="Password"
          type="password"
          value={password}
          onChange={setPassword}
          isRequired
          autoComplete="current-password"
        />
        <Button type="submit">Sign in</Button>
        <Wrong role="alert">{wrong}</Wrong>
        {[...waiting].map(([person, count]) => (
          <p key={person}>
            {counted(count, "entry", "entries")} from the machine {count === 1 ? "waits" : "wait"} on this
            tablet for {person} to sign in.
          </p>
        ))}
      </Card>
    </Page>
  );
}
