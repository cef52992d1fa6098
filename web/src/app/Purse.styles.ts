import { Button } from "react-aria-components";
import styled from "styled-components";
import { ink, lineHeight, purseHeight, serif, whenNarrow } from "../look/tokens";

export const Band = styled.section`
  display: flex;
  align-items: stretch;
  min-height: ${purseHeight}px;
  border-top: 1.5px solid ${ink.ink};
  background: ${ink.paper2};
  &[data-tried] {
    border-top-style: dashed;
    background: ${ink.petalWash};
  }
  ${whenNarrow} {
    min-height: ${lineHeight}px;
  }
`;

export const Money = styled.div`
  flex: 1;
  min-width: 0;
  padding: 7px 20px 8px;
  display: flex;
  flex-direction: column;
  justify-content: space-between;
  ${whenNarrow} {
    padding: 3px 12px;
    justify-content: center;
  }
`;

export const Line = styled.div`
  display: flex;
  justify-content: space-between;
  gap: 16px;
  font-size: 12px;
  color: ${ink.ink2};
  white-space: nowrap;
  overflow: hidden;
  /* what is said last of the money gives way, what the next unit brings does not */
  button {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  button + button {
    flex: none;
  }
  ${whenNarrow} {
    button + button {
      display: none;
    }
  }
`;

export const Figure = styled(Button)`
  border: 0;
  background: none;
  padding: 0;
  font-size: 12px;
  color: ${ink.ink2};
  cursor: pointer;
  b {
    color: ${ink.ink};
  }
  &[data-hovered] {
    color: ${ink.petalDeep};
    text-decoration: underline;
    text-underline-offset: 3px;
  }
`;

/** Said where there is room for it. */
export const Wide = styled.span`
  ${whenNarrow} {
    display: none;
  }
`;

/** Said where there is plenty of room. */
export const Widest = styled.span`
  @media (max-width: 1179px) {
    display: none;
  }
  ${whenNarrow} {
    display: none;
  }
`;

export const Track = styled(Button)`
  display: flex;
  align-items: flex-end;
  gap: 2px;
  border: 0;
  background: none;
  padding: 0;
  height: 34px;
  width: 100%;
  cursor: pointer;
  overflow: hidden;
  ${whenNarrow} {
    height: 8px;
    span > span {
      display: none;
    }
    i {
      height: 8px;
    }
  }
`;

export const Segment = styled.span`
  display: flex;
  flex-direction: column;
  min-width: 0;
  flex: none;
  text-align: left;
  span {
    font-size: 12px;
    line-height: 17px;
    color: ${ink.ink2};
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  container-type: inline-size;
  @container (max-width: 46px) {
    span {
      visibility: hidden;
    }
  }
  b {
    color: ${ink.ink};
    font-weight: 600;
  }
  i {
    height: 15px;
  }
`;

export const Free = styled.span`
  flex: 1;
  min-width: 2px;
  text-align: left;
  span {
    font-size: 12px;
    line-height: 17px;
    color: ${ink.straw};
  }
  i {
    display: block;
    height: 15px;
    border: 1px dashed ${ink.ink3};
  }
`;

export const Total = styled(Button)`
  border: 0;
  border-left: 1px solid ${ink.rule};
  background: none;
  cursor: pointer;
  text-align: left;
  padding: 3px 12px 4px 14px;
  min-width: 128px;
  line-height: 1.3;
  display: flex;
  flex-direction: column;
  justify-content: center;
  color: ${ink.ink};
  outline-offset: -3px;
  &[data-hovered] {
    background: ${ink.petalWash};
  }
  span {
    display: flex;
    align-items: baseline;
    gap: 7px;
    white-space: nowrap;
  }
  strong {
    font-family: ${serif};
    font-size: 22px;
    font-weight: 600;
    line-height: 1.2;
  }
  em {
    font-style: normal;
    font-weight: 500;
    font-size: 12px;
    color: ${ink.ink2};
  }
  em[data-good] {
    color: ${ink.moss};
  }
  small {
    font-size: 12px;
    color: ${ink.ink2};
  }
  @media (max-width: 1100px) {
    min-width: 104px;
    padding: 6px 8px;
  }
  ${whenNarrow} {
    min-width: 0;
    padding: 2px 8px;
    span {
      flex-direction: column;
      gap: 0;
    }
    strong {
      font-size: 15px;
    }
    em:empty {
      display: none;
    }
    small {
      line-height: 1.1;
    }
    small > span {
      display: none !important;
    }
  }
`;

/** A range that belongs to an older plan is greyed until its own is drawn. */
export const Between = styled.span`
  display: block !important;
  color: ${ink.ink};
  transition: opacity 140ms;
  &[data-late] {
    opacity: 0.45;
  }
`;
