import { useState } from "react";
import styled from "styled-components";
import { fieldErrors, type PlanList, type Settled, said, type Units } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { type Action, settle } from "./queries";

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(2)} ${space(5)};
  align-items: center;
  padding: ${space(2)} ${space(1)};
`;

const Found = styled.section`
  display: grid;
  gap: ${space(2)};
  margin-top: ${space(3)};
  padding: ${space(3)};
  background: ${colour("card")};
  border: ${size.line} solid ${colour("act")};
  h3 {
    font: 600 ${type.label} ${face.narrow};
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    padding: ${space(1)};
    text-align: left;
    vertical-align: top;
    border-bottom: ${size.line} solid ${colour("hairline")};
    font-weight: 400;
  }
  thead th {
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  td:nth-child(3),
  td:nth-child(4) {
    text-align: right;
    white-space: nowrap;
    font-variant-numeric: tabular-nums;
  }
  small {
    display: block;
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("caution")};
  }
`;

const Wrong = styled.p`
  margin-top: ${space(2)};
  color: ${colour("stop")};
`;

type Props = {
  runId: number;
  units: Units;
  side: number;
  list: PlanList;
  /** The cut in view; -1 where there is none. */
  cut: number;
  revision: number;
  onDo: (action: Action) => Promise<boolean>;
};

/** What is done with whole operations: proposed, put in order, split, settled. */
export function Operations({ runId, units, side, list, cut, revision, onDo }: Props) {
  const [found, setFound] = useState<{ cut: number | null; answer: Settled } | null>(null);
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const name = list.items[cut];
  if (!list.may_add && list.removable_from >= list.items.length) return null;

  async function look(which: number | null) {
    setBusy(true);
    setWrong("");
    setFound(null);
    try {
      setFound({ cut: which, answer: await settle(runId, side, which, units) });
    } catch (error) {
      setWrong(Object.values(fieldErrors(error))[0] ?? said(error));
    }
    setBusy(false);
  }
  async function take() {
    if (found && (await onDo({ kind: "settle", side, cut: found.cut, base: revision }))) setFound(null);
  }
  return (
    <>
      <Bar role="group" aria-label="Operations">
        {name !== undefined && (
          <Button onPress={() => void look(cut)} isDisabled={busy}>
            Settle {name}
          </Button>
        )}
        {list.items.length > 0 && (
          <Button onPress={() => void look(null)} isDisabled={busy}>
            Settle the set-up
          </Button>
        )}
        {name !== undefined && cut > 0 && (
          <TextButton
            onPress={() =>
              void onDo({ kind: "move", path: list.path, index: cut, to: cut - 1, base: revision })
            }
          >
            earlier
          </TextButton>
        )}
        {name !== undefined && cut < list.items.length - 1 && (
          <TextButton
            onPress={() =>
              void onDo({ kind: "move", path: list.path, index: cut, to: cut + 1, base: revision })
            }
          >
            later
          </TextButton>
        )}
        {name !== undefined && (
          <TextButton
            onPress={() => void onDo({ kind: "split", path: list.path, index: cut, base: revision })}
          >
            split into roughing and finishing
          </TextButton>
        )}
        <TextButton onPress={() => void onDo({ kind: "propose", side, base: revision })}>
          {list.items.length > 0
            ? "propose all operations again from the profile"
            : "propose operations from the profile"}
        </TextButton>
        {busy && <span role="status">Trying all combinations …</span>}
      </Bar>
      {wrong && <Wrong role="alert">{wrong}</Wrong>}
      {found && (
        <Found aria-label="What settling found">
          <h3>{found.answer.words}</h3>
          <table>
            <thead>
              <tr>
                <th scope="col">cut</th>
                <th scope="col">would be</th>
                <th scope="col">min now</th>
                <th scope="col">min then</th>
                <th scope="col">held back by</th>
              </tr>
            </thead>
            <tbody>
              {found.answer.cuts.map((c) => (
                <tr key={c.index}>
                  <th scope="row">{c.name}</th>
                  <td>
                    {c.words.split(";")[0]}
                    {c.gives_up.length > 0 && <small>gives up: {c.gives_up.join(", ")}</small>}
                  </td>
                  <td>{c.before.toFixed(2)}</td>
                  <td>{c.after.toFixed(2)}</td>
                  <td>
                    {c.binds || "nothing that was tried"}
                    {c.without !== null && ` (${c.without.toFixed(2)} min without it)`}
                    {c.then && `, then ${c.then}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <Bar>
            <Button onPress={() => void take()}>Take it</Button>
            <TextButton onPress={() => setFound(null)}>leave it</TextButton>
            {found.answer.revision !== revision && (
              <span role="status">
                Found for draft {found.answer.revision}; it is settled anew when taken.
              </span>
            )}
          </Bar>
        </Found>
      )}
    </>
  );
}
