import styled from "styled-components";
import { ink, whenStacked } from "../../look/tokens";
import { ticks } from "../../parts/ticks";

export const Split = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  ${whenStacked} {
    display: block;
    overflow-y: auto;
  }
`;

export const Sheet = styled.section`
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  ${whenStacked} {
    min-height: 300px;
    height: 150vh;
  }
`;

/** The checks in a line, where they stand above what they are of. */
export const Unfold = styled.p`
  display: none;
  ${whenStacked} {
    display: block;
    margin: 4px 0 0;
    font-size: 12.5px;
  }
`;

export const Folded = styled.div`
  ${whenStacked} {
    &:not([data-open]) {
      display: none;
    }
  }
`;

export const Head = styled.div`
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 8px 16px;
  padding: 11px 20px 10px;
  h1 {
    font-size: 24px;
  }
  > span {
    margin-left: auto;
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
`;

export const Side = styled.aside`
  width: 300px;
  flex: none;
  overflow-y: auto;
  border-right: 1px solid ${ink.rule};
  background: ${ink.paper2};
  padding: 16px 18px;
  ${whenStacked} {
    width: auto;
    border-right: 0;
    border-bottom: 1.5px solid ${ink.ink};
  }
  h2 {
    display: flex;
    justify-content: space-between;
    font-size: 16px;
    margin-bottom: 6px;
  }
  h3 {
    font: inherit;
    font-size: 12px;
    font-weight: 600;
    color: ${ink.ink2};
    margin-bottom: 2px;
  }
  li > span,
  li > a {
    display: inline-flex;
    gap: 10px;
    margin-left: 8px;
  }
  li > small + span {
    margin-left: 0;
  }
  li[data-must] {
    border-left: 3px solid ${ink.rose};
    padding-left: 8px;
  }
  ul {
    list-style: none;
    margin: 0 0 18px;
    padding: 0;
  }
  li {
    padding: 6px 0;
    border-top: 1px solid ${ink.rule};
    overflow-wrap: anywhere;
  }
  li small {
    display: block;
    color: ${ink.ink2};
    font-size: 12px;
  }
  p {
    color: ${ink.ink2};
    margin-bottom: 22px;
  }
  a {
    color: ${ink.petalDeep};
  }
`;

/** What is sent, and how. */
export const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 6px 14px;
  padding: 0 20px 10px;
  a {
    font-size: 12px;
    color: ${ink.petalDeep};
  }
  > span {
    margin-left: auto;
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
`;

export const Shelves = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
`;

export const Shelf = styled.section`
  padding: 4px 20px 16px;
  overflow: auto;
  a {
    color: ${ink.petalDeep};
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 2px 14px;
    padding: 8px 4px;
    border-bottom: 1px solid ${ink.rule};
    font-size: 12.5px;
  }
  li[data-open] {
    background: ${ink.petalWash};
  }
  li > div[data-files],
  li > small {
    flex-basis: 100%;
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    font-size: 12px;
    color: ${ink.ink2};
  }
`;

export const Rows = styled.table`
  border-collapse: collapse;
  font-size: 12.5px;
  th {
    text-align: left;
    font-weight: 500;
  }
  th,
  td {
    padding: 2px 18px 2px 0;
    border-bottom: 1px solid ${ink.rule};
    vertical-align: baseline;
  }
  td span {
    margin-right: 14px;
    white-space: nowrap;
  }
  s {
    color: ${ink.ink2};
  }
  tr[data-turn="removed"] td:nth-child(3) {
    text-decoration: line-through;
  }
`;

/** The client's sheet with what is chosen of it beside. */
export const Printed = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  border-top: 1px solid ${ink.rule};
  iframe {
    flex: 1;
    min-width: 0;
    border: 0;
    background: ${ink.paper};
  }
  ${whenStacked} {
    flex-direction: column;
    iframe {
      min-height: 420px;
    }
  }
`;

export const Choices = styled.section`
  width: 218px;
  flex: none;
  overflow-y: auto;
  padding: 8px 12px 16px 20px;
  border-right: 1px solid ${ink.rule};
  font-size: 12.5px;
  p,
  [role="paragraph"] {
    margin: 0 0 8px;
  }
  a {
    margin-right: 10px;
    color: ${ink.petalDeep};
  }
  [role="group"] {
    margin: 12px 0 10px;
  }
  [role="group"] > span:first-child {
    display: block;
    margin-bottom: 2px;
    font-weight: 600;
    color: ${ink.ink2};
  }
  ${ticks}
  ${whenStacked} {
    width: auto;
    border-right: 0;
  }
`;

/** What the checks go by, as a paragraph that holds fields. */
export const Told = styled.div`
  color: ${ink.ink2};
  margin-bottom: 22px;
`;

/** The columns of a sheet, one beside the other as they stand in the file. */
export const Columns = styled.section`
  padding: 2px 20px 10px;
  font-size: 12.5px;
  max-height: 45%;
  overflow-y: auto;
  flex: none;
  small {
    font-size: 12px;
    color: ${ink.ink2};
  }
  ol {
    list-style: none;
    margin: 6px 0;
    padding: 0;
    display: flex;
    flex-wrap: wrap;
    gap: 6px 18px;
  }
  li {
    display: flex;
    align-items: center;
    gap: 4px;
    border-bottom: 1px solid ${ink.rule};
  }
  ${ticks}
`;
