import { useState } from "react";
import styled from "styled-components";
import type { RunningPage } from "../../api/client";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { Hand, Row, Soft } from "./hand";

const List = styled.ul`
  display: grid;
  > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: ${space(1)} ${space(4)};
    align-items: center;
    padding: ${space(2)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  h3 {
    font-size: ${type.run};
    font-weight: 600;
  }
  .left {
    font: 600 ${type.hand} ${face.plain};
    font-variant-numeric: tabular-nums;
  }
  [data-short] {
    color: ${colour("stop")};
  }
  [data-why] {
    grid-column: 1 / -1;
  }
`;

type Props = {
  page: RunningPage;
  /** The tool whose edge is being changed. */
  chosen: string | null;
  onChoose: (key: string | null) => void;
  onFresh: (key: string, why: "due" | "worn" | "size" | "broken" | "other") => void;
  onOffset: (key: string, amount: string) => void;
  wrong: string | undefined;
};

/** Every edge with its clock; a fresh one is noted with why it was changed. */
export function EdgeList({ page, chosen, onChoose, onFresh, onOffset, wrong }: Props) {
  const [amount, setAmount] = useState("");
  return (
    <List aria-label="Edges">
      {page.standing.edges.map((e) => (
        <li key={e.key}>
          <div>
            <h3>
              Tool {e.station} · {e.name}{" "}
              <span className="left">{e.left === null ? "" : `${e.left} left`}</span>
            </h3>
            <Soft>{e.told}</Soft>
            {e.spares && <Soft data-short={e.short || undefined}>{e.spares}</Soft>}
          </div>
          <Hand
            disabled={!page.may_mark}
            aria-pressed={chosen === e.key}
            onClick={() => onChoose(chosen === e.key ? null : e.key)}
          >
            Fresh edge or offset
          </Hand>
          {chosen === e.key && (
            <div data-why>
              <Soft>Spindle stopped, gloves on: edges cut hands. Fresh edge, because:</Soft>
              <Row role="group" aria-label={`Why tool ${e.station} has a fresh edge`}>
                {page.changed_for.map((w) => (
                  <Hand key={w.key} onClick={() => onFresh(e.key, w.key as "due")}>
                    {w.words}
                  </Hand>
                ))}
              </Row>
              {e.fresh.map((f) => (
                <p key={f}>With it: {f}.</p>
              ))}
              <Soft>Or its offset moved, X as a diameter:</Soft>
              <Row>
                <OffsetField value={amount} onChange={setAmount} units={page.units} />
                <Hand disabled={amount.trim() === ""} onClick={() => onOffset(e.key, amount)}>
                  Note the offset
                </Hand>
              </Row>
              {wrong && <p role="alert">{wrong}</p>}
            </div>
          )}
        </li>
      ))}
    </List>
  );
}

const Offset = styled.label`
  font-size: ${type.hand};
  input {
    width: 9ch;
    height: ${size.hand};
    padding: 0 ${space(2)};
    text-align: right;
    background: ${colour("card")};
    border: 0;
    border-bottom: ${size.thick} solid ${colour("act")};
  }
`;

function OffsetField({
  value,
  onChange,
  units,
}: {
  value: string;
  onChange: (v: string) => void;
  units: RunningPage["units"];
}) {
  return (
    <Offset>
      <input
        aria-label="Added to the offset"
        autoComplete="off"
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />{" "}
      {units === "metric" ? "mm" : "in"}
    </Offset>
  );
}
