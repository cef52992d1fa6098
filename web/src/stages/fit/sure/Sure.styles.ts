import styled from "styled-components";
import { ink, whenStacked } from "../../../look/tokens";

export const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 4px 20px 24px;
  h2 {
    font-size: 16px;
  }
  p {
    font-size: 12.5px;
    color: ${ink.ink2};
    margin: 2px 0 4px;
    max-width: 900px;
  }
`;

export const Progress = styled.div`
  font-size: 12px;
  color: ${ink.ink2};
  position: sticky;
  top: 0;
  background: ${ink.paper};
  z-index: 2;
`;

export const Split = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(260px, 2fr);
  gap: 10px 32px;
  margin-bottom: 12px;
  ${whenStacked} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

export const Titled = styled.div`
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  border-bottom: 1px solid ${ink.ink};
  margin-bottom: 4px;
`;

export const Odd = styled.div`
  padding: 4px 0;
  border-bottom: 1px solid ${ink.rule};
  b {
    display: inline-block;
    min-width: 128px;
  }
  span {
    color: ${ink.ink2};
  }
`;

/** A bar on the scale of its list; `$told` is how wide what is said beside it may be. */
export const Bar = styled.div<{ $told: number }>`
  display: grid;
  grid-template-columns: minmax(110px, 1.4fr) minmax(60px, 1.2fr) ${(p) => p.$told}px;
  gap: 10px;
  align-items: center;
  font-size: 12.5px;
  padding: 2px 0;
  border-bottom: 1px solid ${ink.rule};
  > div {
    position: relative;
    height: 12px;
  }
  i {
    position: absolute;
    top: 0;
    bottom: 0;
    min-width: 2px;
    background: ${ink.petalMid};
  }
  u {
    position: absolute;
    top: -2px;
    bottom: -2px;
    width: 2px;
    background: ${ink.ink};
  }
  > :last-child {
    color: ${ink.ink2};
  }
`;

export const Table = styled.table`
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
  font-size: 12.5px;
  th {
    text-align: left;
    font-weight: 400;
  }
  thead th {
    font-size: 12px;
    color: ${ink.ink2};
  }
  th,
  td {
    padding: 3px 26px 3px 0;
    border-bottom: 1px solid ${ink.rule};
    white-space: nowrap;
  }
  td small {
    margin-left: 8px;
    font-size: 12px;
    color: ${ink.ink2};
  }
  td span {
    color: ${ink.ink2};
  }
`;

export const Used = styled.section`
  margin-bottom: 12px;
`;

export const Strip = styled.div`
  display: flex;
  height: 12px;
  margin: 3px 0;
  border: 1px solid ${ink.ink3};
  i {
    background: ${ink.petalDeep};
  }
  u {
    background: ${ink.paper2};
    border-left: 1px solid ${ink.ink3};
  }
`;
