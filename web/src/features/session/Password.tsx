import { useState } from "react";
import { Form } from "react-aria-components";
import { fieldErrors, said } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { Column, Told } from "../../shared/ui/Page";
import { useOwnPassword } from "./queries";

/** Change one's own password. */
export function Password() {
  const [old, setOld] = useState("");
  const [next, setNext] = useState("");
  const change = useOwnPassword();
  const errors = fieldErrors(change.error);
  return (
    <Column>
      <h2>My password</h2>
      <Form
        onSubmit={(event) => {
          event.preventDefault();
          change.mutate(
            { old, new: next },
            {
              onSuccess: () => {
                setOld("");
                setNext("");
              },
            },
          );
        }}
      >
        <Entry
          label="As it is now"
          type="password"
          autoComplete="current-password"
          value={old}
          onChange={setOld}
          error={errors.old}
          isRequired
        />
        <Entry
          label="New"
          type="password"
          autoComplete="new-password"
          value={next}
          onChange={setNext}
          error={errors.password}
          hint="10 characters at least"
          isRequired
        />
        <Button type="submit">Change it</Button>
        <Told role="status">
          {change.isSuccess && "Changed. You are signed out everywhere else."}
          {change.isError && Object.keys(errors).length === 0 && said(change.error)}
        </Told>
      </Form>
    </Column>
  );
}
