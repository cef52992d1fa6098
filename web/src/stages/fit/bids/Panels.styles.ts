import { Button } from "react-aria-components";
import styled from "styled-components";
import { ink, whenStacked } from "../../../look/tokens";

/** A panel above the bids that is read. */
export const Panel = styled.div`
  flex: none;
  max-height: 236px;
  overflow: auto;
  padding: 6px 20px 8px;
  border-top: 1px solid ${ink.rule};
  display: flex;
  flex-wrap: wrap;
  align-items: flex-start;
  gap: 8px 48px;
`;

export const Tall = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 6px 20px 8px;
  border-top: 1px solid ${ink.rule};
`;

export const Split = styled.div`
  flex: none;
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(250px, 2fr);
  gap: 4px 24px;
  padding: 6px 20px 8px;
  border-top: 1px solid ${ink.rule};
  ${whenStacked} {
    grid-template-columns: minmax(0, 1fr);
    max-height: 236px;
    overflow: auto;
  }
`;

export const Figures = styled.table`
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
    vertical-align: bottom;
    white-space: nowrap;
  }
  thead th > button {
    vertical-align: middle;
  }
  thead th:not(:first-child),
  td {
    text-align: right;
  }
  th,
  td {
    padding: 2px 0 2px 22px;
    border-bottom: 1px solid ${ink.rule};
  }
  th:first-child {
    padding-left: 0;
  }
  tr[data-best] td:nth-child(2) {
    color: ${ink.moss};
    font-weight: 600;
  }
  i {
    font-style: normal;
    color: ${ink.ink2};
  }
`;

export const Aside = styled.p`
  margin: 0;
  font-size: 12px;
  color: ${ink.ink2};
`;

export const Sentences = styled.div`
  p,
  [role="paragraph"] {
    margin: 0 0 5px;
    max-width: 640px;
  }
`;

export const Cost = styled.span`
  font-size: 12px;
  color: ${ink.ink2};
  &[data-binds] {
    color: ${ink.rose};
  }
`;

export const Set = styled(Button)`
  border: 0;
  background: none;
  padding: 0 2px;
  cursor: pointer;
  color: ${ink.petalDeep};
  text-decoration: underline;
  text-underline-offset: 3px;
  &[data-disabled] {
    color: ${ink.ink};
    text-decoration: none;
  }
`;

export const Questions = styled.section`
  p {
    margin: 0 0 8px;
    font-size: 12.5px;
  }
  p > b {
    display: block;
    font-size: 13.5px;
  }
  b[data-late] {
    color: ${ink.ink3};
  }
  p > button {
    font-size: 12px;
    padding-left: 0;
  }
`;

/** What a bulk step would do, before it is made. */
export const Moves = styled.section`
  flex: none;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 18px;
  padding: 5px 20px;
  background: ${ink.petalWash};
  font-size: 12.5px;
  > :nth-child(2) {
    flex: 1;
    text-align: right;
  }
  [data-late] {
    color: ${ink.ink2};
  }
`;
