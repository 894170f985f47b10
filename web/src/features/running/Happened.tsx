import { useState } from "react";
import styled from "styled-components";
import { type RunningPage, said } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { FileButton } from "../../shared/ui/FileButton";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { moment } from "../../shared/words";
import { Hand, Row, Soft, Wrong } from "./hand";
import { type Came, type Doing, type RunningAddress, useFile, usePiece } from "./queries";

const Box = styled.div`
  display: grid;
  gap: ${space(4)};
  h2 {
    font-size: ${type.run};
    font-weight: 600;
  }
  ol {
    display: grid;
  }
  ol > li {
    display: grid;
    grid-template-columns: 9rem minmax(0, 1fr) auto;
    gap: ${space(1)} ${space(3)};
    padding: ${space(1.5)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
    font-size: ${type.run};
    span {
      font: 400 ${type.run} ${face.narrow};
      color: ${colour("soft")};
    }
  }
`;

type Props = { page: RunningPage; of: RunningAddress; doing: Doing };

/** What happened to this lot, a piece put right, and pieces from a file and to one. */
export function Happened({ page, of, doing }: Props) {
  return (
    <Box>
      <section aria-label="What happened">
        <h2>What happened</h2>
        {page.log.length === 0 ? (
          <Soft>Nothing yet: edges, offsets, stops, scrap and corrections stand here.</Soft>
        ) : (
          <ol>
            {page.log.map((one) => (
              <li key={`${one.at} ${one.words}`}>
                <span>after {one.after}</span>
                {one.words}
                <span>
                  {one.by}, {moment(one.at)}
                </span>
              </li>
            ))}
          </ol>
        )}
      </section>
      {page.may_mark && page.head.counted > 0 && <PutRight page={page} doing={doing} />}
      <FilePart page={page} of={of} />
    </Box>
  );
}

function PutRight({ page, doing }: { page: RunningPage; doing: Doing }) {
  const [number, setNumber] = useState("");
  const wanted = /^\d+$/.test(number.trim()) ? Number(number) : null;
  const piece = usePiece(page, wanted);
  const [values, setValues] = useState<Record<string, string>>({});
  const [why, setWhy] = useState("");
  const [came, setCame] = useState<Came | null>(null);
  const fields = came?.kind === "wrong" ? came.fields : {};
  const put = async (change: { good?: boolean; reason?: string; sure?: boolean }) => {
    if (wanted === null) return;
    const written = Object.fromEntries(Object.entries(values).filter(([, v]) => v.trim() !== ""));
    const found = await doing.keep("corrections", { piece: wanted, why, values: written, ...change });
    setCame(found);
    if (found.kind === "kept") {
      setValues({});
      setWhy("");
    }
  };
  const found = piece.data;
  return (
    <section aria-label="Put a piece right">
      <h2>Put a piece right</h2>
      <Soft>What stood there before is kept beside it.</Soft>
      <Entry
        label="Piece"
        value={number}
        onChange={(v) => {
          setNumber(v);
          setCame(null);
        }}
        error={fields.piece ?? (piece.isError ? said(piece.error) : undefined)}
      />
      {found && (
        <>
          <p>
            Piece {found.number} is {found.good ? "good" : `scrap: ${found.reason}`}, by {found.by},{" "}
            {moment(found.at)}.
          </p>
          {found.values.map((v) => (
            <Entry
              key={v.dimension}
              label={`${v.title}: ${v.shown}, by ${v.by}`}
              value={values[v.dimension] ?? ""}
              onChange={(now) => setValues({ ...values, [v.dimension]: now })}
              error={fields[v.dimension]}
            />
          ))}
          {found.corrected.map((c) => (
            <Soft key={`${c.at} ${c.words}`}>
              {c.words}: {c.why}, {c.by}, {moment(c.at)}
            </Soft>
          ))}
          <Entry
            label="Why it is corrected"
            value={why}
            onChange={setWhy}
            maxLength={160}
            error={fields.why ?? fields.reason ?? fields.good}
          />
          <Row>
            <Hand disabled={doing.isBusy || why.trim() === ""} onClick={() => void put({})}>
              Correct what was measured
            </Hand>
            <Hand
              disabled={doing.isBusy || why.trim() === ""}
              onClick={() => void put(found.good ? { good: false, reason: why } : { good: true })}
            >
              {found.good ? "It is scrap" : "It is good"}
            </Hand>
          </Row>
          {came?.kind === "asked" && (
            <>
              <Wrong role="alert">{came.words}</Wrong>
              <Hand onClick={() => void put({ sure: true })}>Yes, that is right. Keep it</Hand>
            </>
          )}
          {came?.kind === "kept" && <Soft role="status">{came.told.join(" ")}</Soft>}
        </>
      )}
    </section>
  );
}

function FilePart({ page, of }: { page: RunningPage; of: RunningAddress }) {
  const [text, setText] = useState("");
  const file = useFile(page, of);
  const lot = `/api/runs/${page.run}/running/${page.release.number}/${page.lot}`;
  return (
    <section aria-label="Pieces as a file">
      <h2>Pieces as a file</h2>
      <Soft>
        CSV: “piece” first, then a column for each dimension, called as here.{" "}
        <a href={`${lot}/pieces.csv?units=${page.units}`}>All pieces as CSV</a>
      </Soft>
      {page.may_mark && (
        <Row>
          <FileButton label="Measured pieces from a file" types={[".csv", "text/csv"]} onText={setText} />
          {text && (
            <Button onPress={() => file.mutate(text)} isDisabled={file.isPending}>
              {`Keep ${text.trim().split("\n").length - 1} rows`}
            </Button>
          )}
        </Row>
      )}
      {file.isError && <Wrong role="alert">{said(file.error)}</Wrong>}
      {file.data && (
        <div role="status">
          <p>
            {file.data.kept} kept, {file.data.bad} not.
          </p>
          {file.data.lines.map((l) => (
            <Soft key={l.line}>
              Line {l.line}: {l.told}
            </Soft>
          ))}
        </div>
      )}
    </section>
  );
}
