import { TextField } from "react-aria-components";
import styled from "styled-components";
import { colour, face, size, space, type } from "./theme";

/** A figure to write at the machine, with its unit. */
export const HandField = styled(TextField)`
  label {
    display: block;
    font: 400 ${type.run} ${face.narrow};
    color: ${colour("soft")};
  }
  span {
    display: flex;
    gap: ${space(2)};
    align-items: baseline;
    font-size: ${type.hand};
  }
  input {
    width: 9ch;
    height: ${size.hand};
    padding: 0 ${space(2)};
    text-align: right;
    font-size: ${type.hand};
    background: ${colour("card")};
    border: 0;
    border-bottom: ${size.thick} solid ${colour("act")};
    border-radius: 0;
  }
`;
