import styled from "styled-components";
import { whenNarrow } from "../../look/tokens";

export const Screen = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  ${whenNarrow} {
    overflow-y: auto;
  }
`;
