import { Button } from "react-aria-components";
import styled from "styled-components";
import { ink, thin, whenNarrow, whenStacked } from "../../look/tokens";

export const Screen = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  ${whenNarrow} {
    overflow-y: auto;
  }
`;

/** The rows under a picture; where the window is low, the whole screen scrolls to them. */
export const Rows = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  ${whenNarrow} {
    flex: none;
    height: 260px;
  }
`;

/** What the plan is set to, as a sentence under the views. */
export const Line = styled.div`
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 2px 16px;
  padding: 0 20px 8px;
`;

export const Near = styled.span`
  margin-left: auto;
  font-size: 12px;
  color: ${ink.moss};
`;

export const Why = styled.p`
  margin: 0 20px 6px;
  padding-left: 10px;
  border-left: 3px solid ${ink.straw};
  color: ${ink.straw};
  font-size: 12px;
`;

export const Hint = styled.p`
  margin: 0 20px 4px;
  font-size: 12px;
  color: ${ink.ink2};
`;

export const Ladder = styled.div`
  position: relative;
  flex: none;
  margin: 0 0 2px;
  border-top: 1px solid ${ink.rule};
  overflow: hidden;
  svg {
    display: block;
  }
`;

export const Empty = styled.p`
  padding: 18px 20px;
  border-top: 1px solid ${ink.rule};
  color: ${ink.ink2};
`;

export const Axis = styled.div`
  position: absolute;
  left: 64px;
  right: 20px;
  top: 4px;
  display: flex;
  justify-content: space-between;
  font-size: 12px;
  color: ${ink.ink2};
`;

export const Edge = styled.div`
  position: absolute;
  top: 22px;
  bottom: 0;
  width: 16px;
  margin-left: -8px;
  cursor: ew-resize;
  touch-action: none;
  user-select: none;
  &::before {
    content: "";
    position: absolute;
    left: 7px;
    top: 0;
    bottom: 20px;
    width: 2px;
    background: ${ink.ink};
  }
  b {
    position: absolute;
    bottom: 1px;
    left: 50%;
    transform: translateX(-50%);
    background: ${ink.ink};
    color: ${ink.paper};
    padding: 1px 10px;
    font-size: 12px;
  }
`;

export const Beside = styled.div`
  position: absolute;
  top: 25px;
  pointer-events: none;
  background: ${thin(ink.paper, 90)};
  padding: 1px 6px;
  font-size: 12px;
  b {
    display: block;
    font-weight: 600;
    font-size: 13.5px;
  }
  span {
    color: ${ink.ink2};
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

export const Ways = styled.section`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  padding: 6px 20px;
  border-top: 1px solid ${ink.rule};
  color: ${ink.ink2};
  font-size: 12.5px;
  b {
    color: ${ink.ink};
    font-weight: 600;
  }
  i {
    font-style: normal;
  }
  [data-best] b {
    color: ${ink.petalDeep};
  }
  em {
    font-style: normal;
    color: ${ink.moss};
  }
`;

export const Match = styled.small`
  color: ${ink.straw};
  font-size: 12px;
`;

export const BidCell = styled.span`
  display: inline-flex;
  align-items: center;
  justify-content: flex-end;
  gap: 4px;
  button {
    border: 0;
    background: none;
    padding: 3px;
    cursor: pointer;
    display: inline-flex;
    color: ${ink.ink3};
  }
  button[aria-pressed="true"] {
    color: ${ink.petalDeep};
  }
  button[data-disabled] {
    visibility: hidden;
  }
`;

export const BidButton = styled(Button)`
  && {
    color: ${ink.ink};
    font-weight: 600;
    border-bottom: 1px solid transparent;
  }
  &&[data-hovered] {
    border-bottom-color: ${ink.petal};
  }
`;

/** Which picture stands above the bids. */
export const Switch = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 18px;
  padding: 0 20px 6px;
  font-size: 12px;
`;

export const By = styled.span`
  color: ${ink.ink2};
`;

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

export const Sentences = styled.div`
  p {
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

/** A picture over the whole width: the way to its table stands in the line above it. */
export const Pictured = styled.div`
  position: relative;
  flex: none;
  > section > :first-child {
    position: absolute;
    right: 20px;
    top: -26px;
  }
  [role="region"] {
    padding: 0 20px;
    max-height: 218px;
    border-top: 1px solid ${ink.rule};
  }
`;
