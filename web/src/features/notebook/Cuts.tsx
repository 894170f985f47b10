import { useState } from "react";
import styled from "styled-components";
import { type NotebookPage, type Session, said, type Units } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { cardsOnPhone } from "../../shared/ui/cards";
import { Told } from "../../shared/ui/Page";
import { Picker } from "../../shared/ui/Picker";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { counted } from "../../shared/words";
import { Bar } from "./Bar";
import { NewCut } from "./NewCut";
import { NotebookFile } from "./NotebookFile";
import { useNotebook, usePutBack, useTakeOut } from "./queries";

const Lines = styled.table`
  width: 100%;
  border-collapse: collapse;
  line-height: 1.25;
  th,
  td {
    padding: ${space(1.5)} ${space(2)} ${space(1.5)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
    text-align: left;
    vertical-align: top;
    font-weight: 400;
  }
  thead th {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  tbody th {
    font-weight: 600;
  }
  small {
    display: block;
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  td button {
    white-space: nowrap;
  }
  td[data-figure] {
    white-space: nowrap;
    font-variant-numeric: tabular-nums;
  }
  ${cardsOnPhone}
`;

const GROUPS = [
  { value: "", label: "all materials" },
  ...["P", "M", "K", "N", "S", "H"].map((g) => ({ value: g, label: `ISO ${g}` })),
];

const HEAD = ["material", "operation", "Ø", "speed", "feed", "depth", "tool", "how it went", "when"];

/** What a field of a proven cut may be. */
function optionsOf(page: NotebookPage | undefined, field: string) {
  return page?.fields.find((f) => f.name === field)?.options;
}

/** Cuts that worked. */
export function Cuts({ session, find, units }: { session: Session; find: string; units: Units }) {
  const [kind, setKind] = useState("");
  const [group, setGroup] = useState("");
  // Other words begin at the first page.
  const [at, setAt] = useState({ find, page: 0 });
  const page = at.find === find ? at.page : 0;
  const setPage = (to: number) => setAt({ find, page: to });
  const [writing, setWriting] = useState(false);
  const { data, isError } = useNotebook({ find, kind, group, page, units });
  const kinds = [{ value: "", label: "all operations" }, ...(optionsOf(data, "kind") ?? [])];
  const takeOut = useTakeOut();
  const putBack = usePutBack();
  const [out, setOut] = useState<NotebookPage["lines"][number] | null>(null);
  const mayPlan = session.role === "owner" || session.role === "planner";
  const first =
    <T,>(set: (value: T) => void) =>
    (value: T) => {
      set(value);
      setPage(0);
    };
  return (
    <>
      <Bar>
        <Picker label="Operation" value={kind} options={kinds} onChange={first(setKind)} />
        <Picker label="Material group" value={group} options={GROUPS} onChange={first(setGroup)} />
        {session.role !== "operator" && !writing && (
          <Button onPress={() => setWriting(true)}>Write a cut down</Button>
        )}
      </Bar>
      {writing && data && <NewCut page={data} units={units} onDone={() => setWriting(false)} />}
      {isError && <Told role="alert">The server does not answer.</Told>}
      {(takeOut.error ?? putBack.error) && <Told role="alert">{said(takeOut.error ?? putBack.error)}</Told>}
      {out && (
        <Bar role="status">
          <span>
            {out.said.material}, {out.said.kind}, {out.said.on} is taken out.
          </span>
          <Button onPress={() => putBack.mutate(out.id, { onSuccess: () => setOut(null) })}>
            Put it back
          </Button>
        </Bar>
      )}
      {data && data.count === 0 && (
        <p>
          {find || kind || group
            ? "No cut in the notebook has all of that. Take a word out."
            : "Cuts that worked stand here. Keep one from a plan’s Cuts, or write one down."}
        </p>
      )}
      {data && data.count > 0 && (
        <>
          <p role="status">
            {counted(data.count, "cut")}
            {data.count > 1 && ", the newest first"}.
          </p>
          <Lines>
            <thead>
              <tr>
                {HEAD.map((h) => (
                  <th key={h} scope="col">
                    {h}
                  </th>
                ))}
                {mayPlan && <td />}
              </tr>
            </thead>
            <tbody>
              {data.lines.map((l) => (
                <tr key={l.id}>
                  <th scope="row">
                    {l.said.material}
                    <small>{l.said.machine}</small>
                  </th>
                  <td>
                    {l.said.kind}
                    <small>{l.said.stage}</small>
                  </td>
                  {(["diameter_mm", "speed_m_min", "feed_mm_rev", "depth_mm"] as const).map((name, i) => (
                    <td key={name} data-figure="" data-head={l.said[name] ? HEAD[i + 2] : undefined}>
                      {l.said[name]}
                    </td>
                  ))}
                  <td>
                    {l.said.insert}
                    <small>{l.said.holder}</small>
                  </td>
                  <td>
                    {[l.said.chip, l.said.finish_um && `Ra ${l.said.finish_um}`, l.said.coolant]
                      .filter(Boolean)
                      .join(" · ")}
                    <small>{[l.said.remarks, l.run].filter(Boolean).join(" · ")}</small>
                  </td>
                  <td data-figure>
                    {l.said.on}
                    <small>{l.by}</small>
                  </td>
                  {mayPlan && (
                    <td>
                      <TextButton
                        aria-label={`take out ${l.said.material} ${l.said.on}`}
                        onPress={() => takeOut.mutate(l.id, { onSuccess: () => setOut(l) })}
                      >
                        take out
                      </TextButton>
                    </td>
                  )}
                </tr>
              ))}
            </tbody>
          </Lines>
          {data.pages > 1 && (
            <Bar>
              {page > 0 && <TextButton onPress={() => setPage(page - 1)}>newer</TextButton>}
              <span>
                page {data.page + 1} of {data.pages}
              </span>
              {page + 1 < data.pages && <TextButton onPress={() => setPage(page + 1)}>older</TextButton>}
            </Bar>
          )}
        </>
      )}
      <NotebookFile mayEdit={mayPlan} />
    </>
  );
}
