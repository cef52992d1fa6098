import styled from "styled-components";
import { ink, thin } from "../../../look/tokens";

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

export const Empty = styled.p`
  padding: 18px 20px;
  border-top: 1px solid ${ink.rule};
  color: ${ink.ink2};
`;
