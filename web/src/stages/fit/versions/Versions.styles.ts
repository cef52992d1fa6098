import styled from "styled-components";
import { ink, serif, whenStacked } from "../../../look/tokens";

export const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 4px 20px 24px;
`;

export const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 14px;
  padding-bottom: 10px;
  color: ${ink.ink2};
  font-size: 12px;
  > span {
    max-width: 640px;
  }
`;

export const Chosen = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  button[aria-pressed="true"] {
    color: ${ink.ink};
    text-decoration: none;
    border-bottom: 2px solid ${ink.petal};
  }
`;

export const Quiet = styled.span`
  font-size: 12px;
  color: ${ink.ink2};
`;

export const Table = styled.table`
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
  caption {
    caption-side: bottom;
    text-align: left;
    padding: 8px 0;
    font-size: 12px;
    color: ${ink.ink2};
  }
  th[scope="row"] {
    text-align: left;
    font-weight: 400;
    color: ${ink.ink2};
    padding: 2px 22px 2px 0;
    white-space: nowrap;
  }
  thead th {
    text-align: left;
    font-weight: 400;
    vertical-align: top;
    padding: 0 0 6px;
  }
  tbody tr {
    border-top: 1px solid ${ink.rule};
  }
  tbody td {
    padding: 2px 22px 2px 10px;
    min-width: 186px;
    vertical-align: baseline;
  }
  td b {
    font-weight: 600;
  }
  td em {
    font-style: normal;
    font-size: 12px;
    margin-left: 8px;
    color: ${ink.petalDeep};
  }
  td small {
    display: block;
    font-size: 12px;
    line-height: 15px;
    color: ${ink.ink2};
  }
  td[data-same] b {
    font-weight: 400;
    color: ${ink.ink3};
  }
`;

export const Head = styled.div`
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 2px;
  padding: 4px 12px 4px 10px;
  border-top: 3px solid transparent;
  font-size: 12px;
  &[data-open] {
    border-top-color: ${ink.petal};
    background: ${ink.petalWash};
  }
  > :first-child {
    font-family: ${serif};
    font-size: 16px;
  }
  > span:last-child {
    display: flex;
    gap: 10px;
    align-items: baseline;
  }
  i {
    font-style: normal;
    color: ${ink.ink2};
  }
`;

export const Columns = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
  gap: 8px 32px;
  margin-top: 10px;
  ${whenStacked} {
    grid-template-columns: minmax(0, 1fr);
  }
  h2 {
    font-size: 16px;
    border-bottom: 1px solid ${ink.ink};
    padding-bottom: 3px;
  }
  summary {
    cursor: pointer;
    padding: 4px 0;
  }
  ul {
    list-style: none;
    margin: 0 0 6px;
    padding: 0 0 0 14px;
  }
  li {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    font-size: 12px;
    padding: 1px 0;
  }
  li button {
    text-align: left;
    font-size: 12px;
  }
  li span {
    text-align: right;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  s {
    color: ${ink.ink2};
  }
`;
