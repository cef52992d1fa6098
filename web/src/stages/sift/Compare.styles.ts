import styled from "styled-components";
import { ink, serif } from "../../look/tokens";

export const Box = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 10px 20px 24px;
  border-top: 1.5px solid ${ink.ink};
`;

export const Table = styled.table`
  border-collapse: collapse;
  th,
  td {
    text-align: left;
    font-weight: 400;
    padding: 4px 22px 4px 0;
    border-bottom: 1px solid ${ink.rule};
    vertical-align: middle;
  }
  thead th {
    font-family: ${serif};
    font-size: 16px;
    max-width: 200px;
    vertical-align: bottom;
    border-bottom: 1.5px solid ${ink.ink};
  }
  tbody th {
    white-space: nowrap;
    color: ${ink.ink2};
    font-size: 12px;
  }
  td i {
    color: ${ink.ink2};
  }
`;

export const Way = styled.small`
  color: ${ink.ink2};
  font-size: 12px;
`;

export const Empty = styled.p`
  padding: 40px 24px;
  color: ${ink.ink2};
`;
