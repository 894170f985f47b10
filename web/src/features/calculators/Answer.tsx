import styled from "styled-components";
import type { CalculatorAnswer } from "../../api/client";
import { AnyPicture } from "../../drawing/AnyPicture";
import { dress } from "../../shared/quantity/dress";
import { SymbolKey } from "../../shared/quantity/SymbolKey";
import { NoteBox } from "../../shared/ui/NoteBox";
import { colour, face, size, space, type } from "../../shared/ui/theme";

const FIRST = 2; // answers that are read from afar

const Found = styled.section`
  display: grid;
  gap: ${space(3)};
  align-content: start;
  &[data-old] {
    color: ${colour("soft")};
  }
  dl {
    display: grid;
    grid-template-columns: minmax(7.5rem, 1fr) fit-content(12rem);
    gap: ${space(1)} ${space(3)};
    dt {
      font: 400 ${type.label}/1.35 ${face.narrow};
    }
    dd {
      font-weight: 600;
      text-align: right;
      font-variant-numeric: tabular-nums;
    }
  }
`;

const Big = styled.p`
  font: 400 ${type.label}/1.2 ${face.narrow};
  strong {
    display: block;
    font: 600 ${type.answer}/1.15 ${face.plain};
    font-variant-numeric: tabular-nums;
    overflow-wrap: anywhere;
  }
`;

const Steps = styled.section`
  overflow-x: auto;
  h3 {
    margin: ${space(4)} 0 ${space(2)};
    font: 600 ${type.label} ${face.narrow};
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    padding: ${space(1)} ${space(4)} ${space(1)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
    text-align: left;
    font-weight: 400;
    vertical-align: top;
  }
  td[data-figure] {
    font-weight: 600;
    white-space: nowrap;
    font-variant-numeric: tabular-nums;
  }
`;

/** A figure of a step: as many digits as tell it from its neighbours. */
function digits(value: unknown): string {
  return typeof value === "number" ? String(Number(value.toPrecision(6))) : String(value);
}

/** The answers, the first of them large, and what must be said about them. */
export function Answers({ answer, isOld }: { answer: CalculatorAnswer; isOld: boolean }) {
  const first = answer.answers.slice(0, FIRST);
  const rest = answer.answers.slice(FIRST);
  return (
    <Found aria-label="Answer" aria-live="polite" data-old={isOld || undefined}>
      {first.map((a) => (
        <Big key={a.name}>
          {a.label}
          <strong>{a.text}</strong>
        </Big>
      ))}
      {answer.notes.map((n) => (
        <NoteBox key={`${n.code} ${n.text}`} level={n.level}>
          {n.text}
        </NoteBox>
      ))}
      <AnyPicture scene={answer.scene} graph={answer.graph} height="17rem" />
      {rest.length > 0 && (
        <dl>
          {rest.map((a) => [<dt key={`${a.name} label`}>{a.label}</dt>, <dd key={a.name}>{a.text}</dd>])}
        </dl>
      )}
    </Found>
  );
}

/** How every figure came about. */
export function Working({ steps }: { steps: CalculatorAnswer["working"] }) {
  if (steps.length === 0) return null;
  return (
    <Steps aria-label="Working">
      <h3>Working</h3>
      <table>
        <tbody>
          {steps.map((s, i) => (
            <tr key={`${s.symbol} ${i}`}>
              <th scope="row">
                {s.symbol}, {s.label}
              </th>
              <td>
                {dress(s.formula)} = {dress(s.substituted)}
              </td>
              <td data-figure>
                {digits(s.value)} {s.unit}
              </td>
              <td>{s.source}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <SymbolKey steps={steps} />
    </Steps>
  );
}
