import { type ReactNode, useEffect, useState } from "react";
import { Form } from "react-aria-components";
import { Link } from "react-router";
import styled from "styled-components";
import { fieldErrors, type Person, type Role, type Session, said } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { AppHeader, Column, Told } from "../../shared/ui/Page";
import { Picker } from "../../shared/ui/Picker";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { NotOpened } from "./NotOpened";
import { useAddPerson, useChangePerson, usePeople } from "./queries";

const ROLES: { value: Role; label: string }[] = [
  { value: "owner", label: "owner: plans, and manages people" },
  { value: "planner", label: "planner: plans, and keeps the shelf" },
  { value: "setter", label: "setter: condition and what is measured" },
  { value: "operator", label: "operator: looks" },
];

const Row = styled.li`
  display: grid;
  grid-template-columns: minmax(120px, 1fr) minmax(0, 2fr) 6.4em 5.2em 5.2em;
  gap: ${space(1)} ${space(4)};
  align-items: center;
  padding: ${space(2.5)} 0;
  border-bottom: ${size.line} solid ${colour("hairline")};
  &[data-closed] b {
    color: ${colour("soft")};
    font-weight: 400;
  }
  small {
    display: block;
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  > form,
  > p {
    grid-column: 1 / -1;
  }
  @media ${fold.phone} {
    grid-template-columns: 1fr auto auto;
    > :nth-child(2) {
      grid-column: 1 / -1;
      grid-row: 2;
    }
  }
`;

function standing(person: Person, isMe: boolean): string {
  if (!person.active) return "may not sign in";
  if (person.resting) return "waits after too many wrong passwords";
  if (isMe) return "you";
  return person.has_password ? "" : "has no password";
}

function PersonRow({ person, isMe }: { person: Person; isMe: boolean }) {
  const change = useChangePerson();
  const [password, setPassword] = useState<string | null>(null);
  const errors = fieldErrors(change.error);
  const wrong = change.error && !errors.password ? said(change.error) : "";
  return (
    <Row data-closed={!person.active || undefined}>
      <span>
        <b>{person.username}</b>
        <small>{standing(person, isMe)}</small>
      </span>
      <Picker
        label={`Role of ${person.username}`}
        value={person.role}
        options={ROLES}
        onChange={(role) => change.mutate({ id: person.id, change: { role: role as Role } })}
      />
      <TextButton onPress={() => setPassword(password === null ? "" : null)}>new password</TextButton>
      {person.resting ? (
        <TextButton onPress={() => change.mutate({ id: person.id, change: { lift: true } })}>
          let in again
        </TextButton>
      ) : (
        <TextButton onPress={() => change.mutate({ id: person.id, change: { end_sessions: true } })}>
          sign out
        </TextButton>
      )}
      <TextButton onPress={() => change.mutate({ id: person.id, change: { active: !person.active } })}>
        {person.active ? "close" : "open again"}
      </TextButton>
      {password !== null && (
        <Form
          onSubmit={(event) => {
            event.preventDefault();
            change.mutate({ id: person.id, change: { password } }, { onSuccess: () => setPassword(null) });
          }}
        >
          <Entry
            label={`New password of ${person.username}`}
            type="password"
            autoComplete="new-password"
            value={password}
            onChange={setPassword}
            error={errors.password}
            hint="10 characters at least; tell it to them in person"
            autoFocus
          />
          <Button type="submit">Give it</Button>
        </Form>
      )}
      {wrong && <Told role="alert">{wrong}</Told>}
    </Row>
  );
}

function NewPerson() {
  const [username, setUsername] = useState("");
  const [password, setPassword] = useState("");
  const [role, setRole] = useState<Role>("operator");
  const add = useAddPerson();
  const errors = fieldErrors(add.error);
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate(
          { username, password, role },
          {
            onSuccess: () => {
              setUsername("");
              setPassword("");
            },
          },
        );
      }}
    >
      <h3>Add somebody</h3>
      <Entry label="Name to sign in with" value={username} onChange={setUsername} error={errors.username} />
      <Entry
        label="First password"
        type="password"
        autoComplete="new-password"
        value={password}
        onChange={setPassword}
        error={errors.password}
        hint="10 characters at least; they can change it themselves"
      />
      <Picker label="Role" value={role} options={ROLES} onChange={(r) => setRole(r as Role)} />
      <Button type="submit">Add</Button>
      <Told role="alert">{add.error && Object.keys(errors).length === 0 ? said(add.error) : ""}</Told>
    </Form>
  );
}

/** Who may sign in, and as what. */
export function People({ session, tools }: { session: Session; tools: ReactNode }) {
  const people = usePeople();
  useEffect(() => {
    document.title = "People · Noble Anvil";
  }, []);
  if (people.isError)
    return <NotOpened title="People" tools={tools} error={people.error} onAgain={() => people.refetch()} />;
  return (
    <>
      <AppHeader title="People" tools={tools} />
      <Column>
        <h2>Who may sign in</h2>
        {people.data ? (
          <>
            <ul>
              {people.data.map((p) => (
                <PersonRow key={p.id} person={p} isMe={p.username === session.name} />
              ))}
            </ul>
            <NewPerson />
            <p>
              <Link to="/trail">What happened</Link>: who signed in, who could not, and what was changed.
            </p>
          </>
        ) : (
          <p>Looking who is there …</p>
        )}
      </Column>
    </>
  );
}
