import { useEffect, useState } from "react";
import { flushSync } from "react-dom";
import styled, { createGlobalStyle } from "styled-components";
import type { CardPage } from "../../api/client";
import { paper } from "../../shared/ui/theme";
import type { Standing } from "./standing";

/** Black on white, whatever the screen is dressed in. */
const Paper = styled.div`
  color: ${paper.ink};
  background: ${paper.sheet};
  font-size: ${paper.size};
  line-height: 1.35;
  @media screen {
    display: none;
  }
  header {
    display: flex;
    justify-content: space-between;
    border-bottom: ${paper.line} solid;
  }
  header svg {
    width: 18mm;
    height: 18mm;
  }
  h1 {
    font-size: ${paper.title};
  }
  h2 {
    margin: 6mm 0 2mm;
    font-size: ${paper.head};
    break-after: avoid;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    padding: 1mm 3mm 1mm 0;
    text-align: left;
    vertical-align: top;
    border-bottom: ${paper.line} solid;
  }
  li {
    display: grid;
    grid-template-columns: 8mm minmax(0, 1fr) 44mm;
    gap: 3mm;
    padding: 2mm 0;
    border-bottom: ${paper.line} solid;
    break-inside: avoid;
  }
  ol {
    padding: 0;
    list-style: none;
  }
  i {
    height: 7mm;
    border: ${paper.line} solid;
    font-style: normal;
    text-align: center;
  }
  i[data-pen] {
    display: block;
    height: 9mm;
    padding: 1mm 2mm;
    text-align: left;
  }
`;

/** Beside each page: which of how many, and of which release. */
const Pages = createGlobalStyle<{ release: number }>`
  @page {
    margin: 16mm 14mm;
    @bottom-left {
      content: "release ${({ release }) => release}";
    }
    @bottom-right {
      content: "page " counter(page) " of " counter(pages);
    }
  }
`;

/** Whether the browser is about to print: what only paper shows is made then, not with every look at a step. */
function usePrinting(): boolean {
  const [isPrinting, setPrinting] = useState(false);
  useEffect(() => {
    const begins = () => flushSync(() => setPrinting(true)); // it prints what is there when this returns
    const ends = () => setPrinting(false);
    window.addEventListener("beforeprint", begins);
    window.addEventListener("afterprint", ends);
    return () => {
      window.removeEventListener("beforeprint", begins);
      window.removeEventListener("afterprint", ends);
    };
  }, []);
  return isPrinting;
}

type Props = { page: CardPage; standing: Standing };

/** The whole card as a browser prints it. */
export function CardOnPaper(props: Props) {
  return usePrinting() ? <Sheets {...props} /> : null;
}

function Sheets({ page, standing }: Props) {
  const { card, code, release } = page;
  return (
    <Paper aria-hidden="true">
      <Pages release={release.number} />
      <header>
        <div>
          <h1>{page.name}</h1>
          <p>
            {page.drawing_number}, release {release.number} by {release.by}; {page.machine}; {page.material},{" "}
            {page.stock}; {page.quantity ?? "no"} pieces
          </p>
          <p>{code?.address}</p>
        </div>
        {code && (
          <svg viewBox={`0 0 ${code.size} ${code.size}`} aria-hidden="true">
            <path d={code.path} />
          </svg>
        )}
      </header>
      {page.sides.map((name, side) => (
        <section key={name}>
          <h2>To set: {name}</h2>
          <table>
            <tbody>
              {card.to_set
                .filter((f) => f.side === side)
                .map((f) => (
                  <tr key={f.label}>
                    <td>{f.label}</td>
                    <td>
                      <b>
                        {f.prefix}
                        {f.number} {f.unit}
                      </b>
                    </td>
                  </tr>
                ))}
            </tbody>
          </table>
        </section>
      ))}
      <h2>Cautions</h2>
      {card.cautions.map((c) => (
        <p key={c}>
          <b>{c}</b>
        </p>
      ))}
      <h2>Tools by station, offset of the same number</h2>
      <table>
        <tbody>
          {card.tools.map((t) => (
            <tr key={`${t.turret} ${t.station}`}>
              <td>
                <b>{t.station}</b> {t.turret}
              </td>
              <td>
                {t.edge} {t.holder}
              </td>
              <td>{t.out}</td>
              <td>{t.cuts.join(", ")}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2>Steps</h2>
      <ol>
        {card.steps.map((s, i) => (
          <li key={s.id}>
            <i>{standing.of(s.id)?.state === "done" ? "✓" : ""}</i>
            <div>
              <b>
                {i + 1} {s.title}
              </b>
              {s.words.map((w) => (
                <p key={w}>{w}</p>
              ))}
              {s.caution && (
                <p>
                  <b>{s.caution}</b>
                </p>
              )}
            </div>
            {s.ask ? (
              <div>
                {s.ask.expected}
                <i data-pen="">{standing.read(s.id)?.shown ?? s.ask.blanks[0]?.unit}</i>
              </div>
            ) : (
              <span />
            )}
          </li>
        ))}
      </ol>
    </Paper>
  );
}
