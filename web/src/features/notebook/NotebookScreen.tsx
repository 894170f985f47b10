import { type ReactNode, useState } from "react";
import { Form, Input, SearchField } from "react-aria-components";
import styled from "styled-components";
import { fieldErrors, type NotebookPage, type Session, said, type Units } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { cardsOnPhone } from "../../shared/ui/cards";
import { Entry } from "../../shared/ui/Entry";
import { FileButton } from "../../shared/ui/FileButton";
import { AppHeader, Told } from "../../shared/ui/Page";
import { Picker } from "../../shared/ui/Picker";
import { Segments } from "../../shared/ui/Segments";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { counted } from "../../shared/words";
import { Everything } from "./Everything";
import {
  useLookAtNotebookFile,
  useNotebook,
  useNotebookFile,
  usePutBack,
  useTakeOut,
  useWriteCut,
} from "./queries";

const Main = styled.main`
  padding: ${space(4)} ${space(5)} ${space(12)};
  overflow-x: auto;
`;

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(3)} ${space(5)};
  align-items: center;
  margin-bottom: ${space(4)};
  input {
    width: 280px;
    max-width: 100%;
    padding: ${space(1)} 0;
    background: transparent;
    border: 0;
    border-bottom: ${size.thick} solid ${colour("act")};
    border-radius: 0;
  }
`;

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

const Fields = styled(Form)`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: ${space(3)} ${space(5)};
  align-items: end;
  margin-bottom: ${space(5)};
  padding-bottom: ${space(4)};
  border-bottom: ${size.line} solid ${colour("hairline")};
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

/** A proven cut by hand: every field, what is wrong told at it. */
function NewCut({ page, units, onDone }: { page: NotebookPage; units: Units; onDone: () => void }) {
  const [fields, setFields] = useState<Record<string, string>>({ kind: "turn", stage: "both" });
  const write = useWriteCut(units);
  const errors = fieldErrors(write.error);
  const put = (name: string) => (value: string) => setFields((all) => ({ ...all, [name]: value }));
  return (
    <Fields
      aria-label="A proven cut"
      onSubmit={(event) => {
        event.preventDefault();
        write.mutate(fields, { onSuccess: onDone });
      }}
    >
      {page.fields.map((f) =>
        f.options ? (
          <Picker
            key={f.name}
            label={f.label}
            value={fields[f.name] ?? ""}
            options={f.options.map((o) => ({
              ...o,
              label: o.value === "" ? `${f.label.toLowerCase()}: ${o.label}` : o.label,
            }))}
            onChange={put(f.name)}
          />
        ) : (
          <Entry
            key={f.name}
            label={`${f.label}${f.unit ? `, ${f.unit}` : ""}`}
            hint={f.required ? undefined : f.help}
            value={fields[f.name] ?? ""}
            error={errors[f.name]}
            onChange={put(f.name)}
          />
        ),
      )}
      <Button type="submit" isDisabled={write.isPending}>
        Write it down
      </Button>
      <TextButton onPress={onDone}>leave it</TextButton>
      {write.error && Object.keys(errors).length === 0 && <Told role="alert">{said(write.error)}</Told>}
    </Fields>
  );
}

/** The file: read, every line answered, then kept as the person says. */
function FileBar({ mayEdit }: { mayEdit: boolean }) {
  const [text, setText] = useState<string | null>(null);
  const take = useNotebookFile();
  const looked = useLookAtNotebookFile();
  const answer = take.data ?? looked.data;
  const wrong = take.error ?? looked.error;
  const fresh = answer?.lines.filter((l) => l.outcome === "new").length ?? 0;
  return (
    <>
      <Bar>
        <a href="/api/notebook/file" download="notebook.csv">
          Save the notebook as CSV
        </a>
        {mayEdit && (
          <FileButton
            label="Look at a file …"
            types={[".csv", "text/csv", "text/plain"]}
            onText={(read) => {
              setText(read);
              take.reset();
              looked.mutate(read);
            }}
          />
        )}
      </Bar>
      {looked.isPending && <Told role="status">Looking at its lines …</Told>}
      {wrong && <Told role="alert">{fieldErrors(wrong).text ?? said(wrong)}</Told>}
      {answer && text !== null && (
        <>
          <Told role="status">
            {answer.kept > 0
              ? `${answer.kept} written down.`
              : `${answer.lines.length} lines: ${fresh} new, ${answer.bad} cannot be taken.`}
          </Told>
          <ul>
            {answer.lines
              .filter((l) => l.outcome === "bad")
              .map((l) => (
                <li key={l.line}>
                  line {l.line}, {l.name}: {l.messages.join(" ")}
                </li>
              ))}
          </ul>
          {answer.kept === 0 && fresh > 0 && (
            <Bar>
              <Button onPress={() => take.mutate({ text, keep: answer.bad ? "good" : "all" })}>
                {answer.bad ? "Keep the good lines only" : "Keep them"}
              </Button>
              <TextButton
                onPress={() => {
                  setText(null);
                  take.reset();
                  looked.reset();
                }}
              >
                leave it
              </TextButton>
            </Bar>
          )}
        </>
      )}
    </>
  );
}

type Props = { session: Session; tools: ReactNode };

const PLACES = [
  { value: "cuts", label: "cuts that worked" },
  { value: "all", label: "everything" },
];

/** The notebook: cuts that worked, and everything else that was noted at the machines, found again. */
export function NotebookScreen({ session, tools }: Props) {
  const [place, setPlace] = useState("cuts");
  const [units, setUnits] = useState<Units>("metric");
  const [find, setFind] = useState("");
  const seesAll = session.role !== "operator";
  return (
    <>
      <AppHeader title="Notebook" tools={tools} />
      <Main>
        <Bar>
          <SearchField aria-label="Find in the notebook" value={find} onChange={setFind}>
            <Input placeholder="find: material, machine, insert, remarks" />
          </SearchField>
          {seesAll && <Segments label="What" value={place} options={PLACES} onChange={setPlace} />}
          <Segments
            label="Units"
            value={units}
            options={[
              { value: "metric", label: "mm" },
              { value: "inch", label: "inch" },
            ]}
            onChange={(value) => setUnits(value === "inch" ? "inch" : "metric")}
          />
        </Bar>
        {place === "cuts" ? (
          <Cuts session={session} find={find} units={units} />
        ) : (
          <Everything find={find} units={units} />
        )}
      </Main>
    </>
  );
}

/** Cuts that worked. */
function Cuts({ session, find, units }: { session: Session; find: string; units: Units }) {
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
      <FileBar mayEdit={mayPlan} />
    </>
  );
}
