import { useState } from "react";
import { Form, Input, Label, TextField } from "react-aria-components";
import styled from "styled-components";
import { Refused } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { colour, face, size, space, type } from "../../shared/ui/theme";
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
  label {
    display: block;
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  input {
    width: 100%;
    height: ${size.touch};
    padding: 0 ${space(2)};
    background: ${colour("card")};
    border: 0;
    border-bottom: ${size.thick} solid ${colour("act")};
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
        <TextField value={username} onChange={setUsername} isRequired autoComplete="username">
          <Label>Name</Label>
          <Input />
        </TextField>
        <TextField
          value={password}
          onChange={setPassword}
          type="password"
          isRequired
          autoComplete="current-password"
        >
          <Label>Password</Label>
          <Input />
        </TextField>
        <Button type="submit">Sign in</Button>
        <Wrong role="alert">{wrong}</Wrong>
      </Card>
    </Page>
  );
}
