import styled from "styled-components";
import { ink } from "../../look/tokens";

/** Its rows take the rest of the height, and some rows' height where there is none. */
export const Tray = styled.section`
  flex: 1;
  min-width: 0;
  min-height: 0;
  overflow-y: auto;
  display: flex;
  flex-direction: column;
  > * {
    flex-shrink: 0;
  }
  > [role="grid"] {
    min-height: 190px;
  }
`;

export const TrayHead = styled.div`
  padding: 12px 20px 10px;
  display: flex;
  align-items: baseline;
  gap: 14px;
  h2 {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    min-width: 0;
  }
  > span:last-child {
    margin-left: auto;
    display: flex;
    gap: 8px;
  }
`;

export const Columns = styled.div`
  overflow-x: auto;
  flex: none;
  margin: 0 20px 10px;
  border-top: 1px solid ${ink.rule};
  border-bottom: 1px solid ${ink.rule};
  table {
    border-collapse: collapse;
    font-size: 12px;
  }
  th {
    text-align: left;
    font-weight: 400;
    padding: 4px 14px 3px 0;
    white-space: nowrap;
    color: ${ink.ink2};
  }
  th small {
    display: block;
    font-size: 12px;
  }
  td {
    padding: 1px 14px 2px 0;
    white-space: nowrap;
    max-width: 220px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  [data-unused] {
    color: ${ink.ink3};
  }
`;
