import styled from "styled-components";
import { colour, size, space } from "../../shared/ui/theme";

/** What stands beside each other in the notebook: a search, choices, buttons. */
export const Bar = styled.div`
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
