import { Button } from "react-aria-components";
import styled from "styled-components";
import { ink, serif } from "../../look/tokens";

export const Search = styled.input`
  border: 0;
  border-bottom: 1px solid ${ink.ink3};
  background: ${ink.paper2};
  padding: 3px 8px;
  width: 190px;
  border-radius: 0;
  &::placeholder {
    color: ${ink.ink2};
  }
`;

export const Count = styled.span`
  margin-left: auto;
  color: ${ink.ink2};
  font-size: 12px;
`;

export const Soft = styled.span`
  color: ${ink.ink2};
`;

export const ComeIn = styled.span`
  color: ${ink.straw};
`;

export const Match = styled.small`
  color: ${ink.straw};
  font-size: 12px;
`;

export const Would = styled.i`
  color: ${ink.ink2};
`;

export const Searches = styled.span`
  display: inline-flex;
  align-items: center;
  justify-content: flex-end;
  gap: 8px;
`;

export const Calls = styled.div`
  display: flex;
  align-items: center;
  gap: 2px;
`;

export const CallButton = styled(Button)`
  display: inline-flex;
  align-items: center;
  gap: 4px;
  border: 1px solid transparent;
  background: none;
  border-radius: 2px;
  padding: 2px 6px;
  cursor: pointer;
  &[data-hovered] {
    background: ${ink.petalWash};
  }
  &[data-disabled] {
    color: ${ink.ink3};
    cursor: default;
  }
`;

export const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 14px;
  height: 27px;
  padding: 0 8px 0 32px;
  background: ${ink.paper};
  color: ${ink.ink2};
  font-size: 12px;
  strong {
    font-family: ${serif};
    font-size: 15px;
    color: ${ink.petalDeep};
  }
  > :last-child {
    margin-left: auto;
  }
  &[data-dragging] {
    border-top: 1.5px solid ${ink.petal};
    background: ${ink.petalWash};
  }
`;

export const Handle = styled.span`
  cursor: ns-resize;
  touch-action: none;
  color: ${ink.petalDeep};
  padding: 2px 8px;
  border: 1px solid ${ink.petalMid};
  user-select: none;
`;
