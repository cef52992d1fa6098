import styled from "styled-components";
import { ink, rowHeight } from "../look/tokens";

export type RowLook = { dim?: boolean; struck?: boolean };

/** Room at the end of each row for the way out that stands over the last. */
export const endWidth = 26;

export const Box = styled.div`
  position: relative;
  scroll-padding-right: ${endWidth}px;
  flex: 1;
  min-height: 0;
  overflow: auto;
  outline-offset: -2px;
  &:focus-visible:has([data-active]) {
    outline: none;
  }
  &:focus-visible [data-active] {
    box-shadow: inset 0 0 0 1.5px ${ink.petal};
  }
`;

export const Head = styled.div`
  display: grid;
  position: sticky;
  top: 0;
  z-index: 2;
  background: ${ink.paper};
  border-bottom: 1.5px solid ${ink.ink};
  border-left: 3px solid transparent;
  width: 100%;
`;

export const HeadCell = styled.div<{ $align?: "end" }>`
  padding: 4px 8px 3px;
  &:first-child {
    padding-left: 17px;
  }
  font-size: 12px;
  line-height: 1.25;
  color: ${ink.ink2};
  align-self: end;
  min-width: 0;
  text-align: ${(p) => (p.$align === "end" ? "right" : "left")};
`;

export const End = styled.div`
  position: sticky;
  right: 0;
  align-self: end;
  background: ${ink.paper};
`;

export const SortButton = styled.button`
  border: 0;
  background: none;
  padding: 0;
  text-align: inherit;
  color: inherit;
  cursor: pointer;
  width: 100%;
  &:hover {
    color: ${ink.petalDeep};
  }
`;

export const Body = styled.div`
  position: relative;
  width: 100%;
`;

export const Row = styled.div`
  display: grid;
  position: absolute;
  top: 0;
  left: 0;
  right: 0;
  height: ${rowHeight}px;
  align-items: center;
  border-bottom: 1px solid ${ink.rule};
  border-left: 3px solid transparent;
  cursor: default;
  &[aria-selected="true"] {
    background: ${ink.petalWash};
  }
  &[data-dim] {
    color: ${ink.ink3};
  }
  &[data-active] {
    border-left-color: ${ink.petal};
    background: ${ink.petalWash};
  }
  &[data-dim][data-active],
  &[data-dim][aria-selected="true"] {
    color: ${ink.ink2};
  }
  &[aria-selected="true"][data-active] {
    box-shadow: inset 0 0 0 1px ${ink.petal};
  }
  &[data-struck] .keyword {
    text-decoration: line-through;
    text-decoration-thickness: 1px;
    color: ${ink.ink2};
  }
`;

export const Cell = styled.div<{ $align?: "end" }>`
  padding: 0 8px;
  &:first-child {
    padding-left: 17px;
  }
  min-width: 0;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  text-align: ${(p) => (p.$align === "end" ? "right" : "left")};
  svg {
    display: block;
  }
`;

export const Divider = styled.div`
  position: absolute;
  top: 0;
  left: 0;
  right: 0;
  border-top: 1.5px solid ${ink.petal};
  background: ${ink.paper};
  z-index: 1;
`;

export const Empty = styled.div`
  padding: 32px 24px;
  color: ${ink.ink2};
  max-width: 60ch;
`;

/** A heading for those who hear it: an empty list has nothing to take away. */
export const Unseen = styled.span`
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
`;
