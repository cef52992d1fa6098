import { Button } from "react-aria-components";
import styled from "styled-components";
import { ink, whenNarrow } from "../../../look/tokens";

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
  > * {
    min-width: 0;
  }
`;

export const Near = styled.span`
  margin-left: auto;
  font-size: 12px;
  color: ${ink.moss};
`;

export const Hint = styled.p`
  margin: 0 20px 4px;
  font-size: 12px;
  color: ${ink.ink2};
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

export const Why = styled.p`
  margin: 0 20px 6px;
  padding-left: 10px;
  border-left: 3px solid ${ink.straw};
  color: ${ink.straw};
  font-size: 12px;
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
