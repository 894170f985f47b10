import { useNavigate } from "react-router";
import { type Role, type Session, said } from "../../api/client";
import { useLooks } from "../../shared/looks";
import { ActionMenu, type MenuGroup } from "../../shared/ui/ActionMenu";
import { Sheet } from "../../shared/ui/Sheet";
import { useLookAs, useSignOut } from "./queries";

const ROLES: readonly Role[] = ["owner", "planner", "setter", "operator"];

/** Who is here, and what belongs to the person and to this screen: role, light or dark, people, password. */
export function Tools({ session }: { session: Session }) {
  const navigate = useNavigate();
  const { set, choose } = useLooks();
  const lookAs = useLookAs();
  const signOut = useSignOut(session.name);
  const groups: MenuGroup[] = [
    {
      title: "Look as",
      actions: session.may_look_as
        ? ROLES.filter((r) => r !== session.role).map((role) => ({
            id: role,
            label: role,
            onAction: () => lookAs.mutate(role),
          }))
        : [],
    },
    {
      title: "This screen",
      actions: [
        {
          id: "set",
          label: set === "dark" ? "Light, as paper" : "Dark, for a dim shop",
          onAction: () => choose(set === "dark" ? "light" : "dark"),
        },
      ],
    },
    {
      title: "Shop",
      actions: [
        ...(session.role === "owner"
          ? [
              { id: "people", label: "People", onAction: () => void navigate("/people") },
              { id: "trail", label: "Trail", onAction: () => void navigate("/trail") },
            ]
          : []),
        ...(session.demo
          ? []
          : [
              { id: "password", label: "My password", onAction: () => void navigate("/password") },
              { id: "out", label: "Sign out", onAction: () => signOut.mutate(false) },
              { id: "everywhere", label: "Sign out everywhere", onAction: () => signOut.mutate(true) },
            ]),
      ],
    },
  ];
  const who = session.name === session.role ? session.role : `${session.name} · ${session.role}`;
  const label = session.demo ? `${who} · demo` : who;
  return (
    <>
      <ActionMenu label={label} hint={`${label}: you, and this screen`} groups={groups} />
      <Sheet title="Not signed out" isOpen={signOut.isError} onClose={signOut.reset}>
        <p>
          {said(signOut.error)} You stay signed in here, and what waits on this tablet goes on waiting. Sign
          out once it answers.
        </p>
      </Sheet>
    </>
  );
}
