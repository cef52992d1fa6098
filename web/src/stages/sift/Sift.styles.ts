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

export const Unpaid = styled.b`
  color: ${ink.moss};
  font-weight: 500;
`;

export const Section = styled.div`
  display: flex;
  align-items: baseline;
  gap: 12px;
  height: 27px;
  padding: 4px 8px 0 20px;
  background: ${ink.paper2};
  color: ${ink.ink2};
  font-size: 12px;
  strong {
    font-family: ${serif};
    font-size: 15px;
    color: ${ink.ink};
  }
`;

export const ComeIn = styled.span`
  color: ${ink.straw};
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

export const Tools = styled.span`
  margin-left: auto;
  font-size: 12px;
`;

export const Tail = styled.p`
  border-top: 1px solid ${ink.rule};
  padding: 5px 20px;
  font-size: 12px;
  color: ${ink.ink2};
  display: flex;
  white-space: nowrap;
  span {
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;

export const Link = styled(Button)`
  border: 0;
  background: none;
  cursor: pointer;
  color: ${ink.petalDeep};
  text-decoration: underline;
  text-underline-offset: 3px;
  margin-left: 6px;
`;

export const Away = styled(Button)`
  border: 0;
  background: none;
  padding: 0 6px;
  cursor: pointer;
  color: ${ink.ink2};
`;

export const Waiting = styled.p`
  padding: 32px 20px;
  color: ${ink.ink2};
`;

export const Under = styled.div`
  padding: 0 20px 7px;
  color: ${ink.ink2};
  min-height: 27px;
`;

export const Word = styled.span`
  &[data-kind="!"] {
    color: ${ink.rose};
    text-decoration: underline dotted 1px;
    text-underline-offset: 3px;
  }
  &[data-kind="o"] {
    color: ${ink.moss};
  }
  &[data-kind="p"] {
    color: ${ink.straw};
    font-style: italic;
  }
  &[data-kind="h"] {
    font-weight: 600;
  }
`;

export const Sentence = styled.div`
  font-size: 16px;
  margin-bottom: 10px;
`;

export const Told = styled.div`
  border-left: 3px solid ${ink.petalMid};
  padding-left: 12px;
  margin: 10px 0;
  p {
    margin: 3px 0;
  }
`;

export const Warn = styled.p`
  color: ${ink.rose};
`;

export const Reasons = styled.ol`
  list-style: none;
  padding: 0;
  margin: 12px 0 0;
  li {
    display: flex;
    justify-content: space-between;
    border-bottom: 1px solid ${ink.rule};
  }
`;

export const Fields = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 18px;
  > p {
    grid-column: 1 / -1;
  }
`;

export const Line2 = styled.div`
  grid-column: 1 / -1;
  display: flex;
  justify-content: space-between;
`;

export const Rules = styled.ul`
  list-style: none;
  padding: 0;
  margin: 10px 0 16px;
  border-top: 1px solid ${ink.rule};
  li {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    border-bottom: 1px solid ${ink.rule};
    padding: 6px 0;
  }
  li p {
    color: ${ink.ink2};
    font-size: 12px;
  }
`;
