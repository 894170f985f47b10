import styled from "styled-components";
import type { CardPage } from "../../api/client";
import { cardsOnPhone } from "../../shared/ui/cards";
import { NoteBox } from "../../shared/ui/NoteBox";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";

const Front = styled.div`
  display: grid;
  grid-template-columns: minmax(16rem, 22rem) minmax(0, 1fr);
  gap: ${space(6)};
  align-items: start;
  padding: ${space(4)} ${space(6)};
  && h2 {
    margin: ${space(3)} 0 ${space(2)};
    font: 600 ${type.run} ${face.narrow};
    color: ${colour("soft")};
  }
  dl {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: ${space(1)} ${space(3)};
    align-items: baseline;
  }
  dt {
    font-size: ${type.run};
  }
  dd {
    font-size: ${type.hand};
    font-weight: 600;
    font-variant-numeric: tabular-nums;
    text-align: right;
  }
  section {
    display: grid;
    gap: ${space(2)};
  }
  @media ${fold.phone} {
    grid-template-columns: minmax(0, 1fr);
    padding: ${space(4)};
  }
`;

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: ${type.run};
  th {
    text-align: left;
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  td,
  th {
    padding: ${space(1.5)} ${space(3)} ${space(1.5)} 0;
    vertical-align: top;
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  td small {
    display: block;
    color: ${colour("soft")};
    font: 400 ${type.label} ${face.narrow};
  }
  ${cardsOnPhone}
`;

/** What is set at the machine, and the tools by station: looked over before the first step. */
export function CardFront({ page }: { page: CardPage }) {
  const { card, sides } = page;
  return (
    <Front>
      <div>
        {sides.map((name, side) => (
          <section key={name} aria-label={`Set for ${name}`}>
            <h2>To set: {name}</h2>
            <dl>
              {card.to_set
                .filter((f) => f.side === side)
                .map((f) => (
                  <div key={f.label} style={{ display: "contents" }}>
                    <dt>{f.label}</dt>
                    <dd>
                      {f.prefix}
                      {f.number} {f.unit}
                    </dd>
                  </div>
                ))}
            </dl>
          </section>
        ))}
      </div>
      <div>
        <h2>Tools by station, offset of the same number</h2>
        <Table>
          <thead>
            <tr>
              <th>Station</th>
              <th>Edge and holder</th>
              <th>Out</th>
              <th>For</th>
              <th>Shelf</th>
            </tr>
          </thead>
          <tbody>
            {card.tools.map((t) => (
              <tr key={`${t.turret} ${t.station}`}>
                <td data-label="Station">
                  {t.station}
                  <small>{t.turret}</small>
                </td>
                <td data-label="Edge and holder">
                  {t.edge}
                  <small>{t.holder}</small>
                </td>
                <td data-label="Out">{t.out}</td>
                <td data-label="For">{t.cuts.join(", ")}</td>
                <td data-label="Shelf">{t.stock}</td>
              </tr>
            ))}
          </tbody>
        </Table>
        {card.cautions.length > 0 && (
          <section aria-label="Cautions" style={{ marginTop: 24 }}>
            {card.cautions.map((c) => (
              <NoteBox key={c} level="caution">
                {c}
              </NoteBox>
            ))}
          </section>
        )}
      </div>
    </Front>
  );
}
