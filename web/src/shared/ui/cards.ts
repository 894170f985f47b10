import { colour, face, fold, size, space, type } from "./theme";

/** Makes a card of each row of a table on a phone: nothing is wider than that. `data-head` names what a cell is. */
export const cardsOnPhone = `
  @media ${fold.phone} {
    thead {
      display: none;
    }
    &,
    table,
    tbody,
    tr,
    th,
    td {
      display: block;
    }
    tr {
      padding: ${space(2)} 0;
      border-bottom: ${size.line} solid ${colour("hairline")};
    }
    th,
    td {
      padding: ${space(0.5)} ${space(1)};
      border-bottom: 0;
    }
    td:empty {
      display: none;
    }
    tbody th {
      font-weight: 600;
    }
    td[data-head]::before {
      content: attr(data-head) " ";
      font: 400 ${type.small} ${face.narrow};
      color: ${colour("soft")};
    }
  }
`;
