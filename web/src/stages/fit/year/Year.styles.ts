import { Button } from "react-aria-components";
import styled from "styled-components";
import { ink, serif, whenStacked } from "../../../look/tokens";
import { Sentence } from "../../../parts/Sentence";

export const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 4px 20px 24px;
  h2 {
    font-size: 16px;
  }
`;

export const Say = styled(Sentence)`
  margin: 0 0 8px;
  line-height: 2;
  button {
    vertical-align: baseline;
  }
`;

/** What stands together, a full stop with the word before it. */
export const Kept = styled.span`
  white-space: nowrap;
`;

export const Sums = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 28px;
  margin-bottom: 6px;
  small {
    font-size: 12px;
    color: ${ink.ink2};
  }
`;

export const Sum = styled.span`
  display: inline-flex;
  align-items: baseline;
  gap: 6px;
  strong {
    font-family: ${serif};
    font-size: 20px;
  }
`;

const labels = 112;

export const Bars = styled.div`
  position: relative;
  margin-left: ${labels}px;
  border-bottom: 1px solid ${ink.ink};
`;

export const Column = styled.div`
  position: absolute;
  top: 0;
  bottom: 0;
  i,
  u {
    position: absolute;
    left: 14%;
    right: 14%;
  }
  i {
    border: 1px solid ${ink.ink3};
    background: ${ink.paper2};
  }
  i:empty {
    @media (forced-colors: active) {
      background: Canvas !important;
    }
  }
  u {
    background: ${ink.petalMid};
  }
`;

export const Handle = styled.div`
  position: absolute;
  left: 8%;
  right: 8%;
  height: 11px;
  margin-top: -6px;
  cursor: ns-resize;
  touch-action: none;
  &::before {
    content: "";
    position: absolute;
    left: 0;
    right: 0;
    top: 5px;
    border-top: 2px solid ${ink.ink};
  }
  &:focus-visible {
    outline: 2px solid ${ink.petal};
  }
`;

export const Months = styled.table`
  width: 100%;
  table-layout: fixed;
  border-collapse: collapse;
  font-size: 12.5px;
  font-variant-numeric: tabular-nums;
  th[scope="row"],
  td:first-child {
    width: ${labels}px;
    text-align: left;
    font-weight: 400;
    font-size: 12px;
    color: ${ink.ink2};
  }
  th[scope="col"] {
    font-weight: 500;
    small {
      font-weight: 400;
    }
  }
  td,
  th[scope="col"] {
    text-align: center;
    padding: 1px 2px;
  }
  small {
    display: block;
    font-size: 12px;
    line-height: 14px;
    color: ${ink.ink2};
  }
  tr[data-note] td {
    font-size: 12px;
    color: ${ink.straw};
    line-height: 13px;
  }
`;

export const Opener = styled(Button)`
  border: 0;
  background: none;
  padding: 2px 6px;
  cursor: pointer;
  color: ${ink.petalDeep};
  text-decoration: underline;
  text-underline-offset: 3px;
  &[aria-expanded="true"] {
    background: ${ink.petalWash};
  }
  &[data-disabled] {
    color: ${ink.ink3};
    text-decoration: none;
    cursor: default;
  }
`;

export const Month = styled.section`
  margin-top: 10px;
  p {
    font-size: 12.5px;
    color: ${ink.ink2};
  }
`;

export const Titled = styled.div`
  display: flex;
  align-items: baseline;
  gap: 10px;
  border-bottom: 1px solid ${ink.ink};
  margin-bottom: 6px;
  h2 {
    flex: 1;
  }
`;

export const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 8px 32px;
  ${whenStacked} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

export const Week = styled.table`
  border-collapse: collapse;
  font-size: 12px;
  color: ${ink.ink2};
  width: 100%;
  table-layout: fixed;
  th {
    width: 40px;
    font-weight: 400;
    text-align: left;
  }
  td {
    padding: 0 1px 1px 0;
    height: 15px;
  }
  td i {
    display: block;
    height: 14px;
    background: ${ink.petal};
  }
  td[data-sum] {
    width: 56px;
    text-align: right;
  }
`;
