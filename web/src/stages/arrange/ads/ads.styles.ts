import styled from "styled-components";
import { ink, serif } from "../../../look/tokens";

export const Leaf = styled.div`
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  padding: 9px 20px 14px;
  background: ${ink.paper2};
  display: flex;
  flex-direction: column;
  gap: 9px;
`;

/** A plain slip of paper with an ad on it. */
export const Slip = styled.div`
  background: ${ink.paper};
  border-top: 1.5px solid ${ink.ink};
  padding: 11px 13px 12px;
  min-height: 66px;
  overflow-wrap: anywhere;
  b {
    display: block;
    font: 600 16px/1.3 ${serif};
  }
  i {
    display: block;
    font: 600 13.5px/1.35 ${serif};
  }
  p {
    margin-top: 2px;
    color: ${ink.ink2};
  }
`;

export const Fields = styled.div`
  display: flex;
  flex-direction: column;
  gap: 4px;
`;

/** A field with its name before it and its count behind it. */
export const FieldLine = styled.div`
  display: grid;
  grid-template-columns: 88px minmax(0, 1fr) 78px;
  gap: 2px 10px;
  align-items: baseline;
  label {
    color: ${ink.ink2};
    font-size: 12px;
  }
  textarea {
    border: 0;
    border-bottom: 1.5px solid ${ink.petal};
    background: none;
    color: ${ink.ink};
    font: inherit;
    padding: 1px 0;
    resize: none;
    width: 100%;
    field-sizing: content;
    overflow: hidden;
  }
  output {
    text-align: right;
    font-size: 12px;
    color: ${ink.ink2};
    white-space: nowrap;
  }
  output[data-over] {
    color: ${ink.rose};
    font-size: 13px;
  }
  small {
    grid-column: 2 / -1;
    color: ${ink.rose};
    font-size: 12px;
  }
`;

export const Said = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    display: grid;
    grid-template-columns: 18px minmax(0, 1fr);
    padding: 2px 0;
  }
  li > span:first-child {
    color: ${ink.moss};
  }
  li[data-not] > span:first-child {
    color: ${ink.straw};
  }
  li[data-wrong] > span:first-child {
    color: ${ink.rose};
  }
  small {
    color: ${ink.ink2};
    font-size: 12px;
  }
`;

export const Heading = styled.h3`
  font: 600 15px ${serif};
  margin-top: 4px;
`;

export const Ways = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 12px;
  font-size: 12px;
`;
