import { ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";
import { ink } from "../../look/tokens";

export const Split = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
`;

export const Sources = styled.div`
  width: 300px;
  flex: none;
  overflow-y: auto;
  padding: 11px 20px 20px;
  border-right: 1px solid ${ink.rule};
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 8px;
  h1 {
    font-size: 24px;
  }
  h2 {
    font-size: 16px;
    margin-top: 12px;
  }
  > div {
    width: 100%;
  }
`;

export const Drop = styled.div`
  border: 1px dashed ${ink.ink3};
  padding: 18px 14px;
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 8px;
  [data-drop-target] & {
    background: ${ink.petalWash};
    border-color: ${ink.petal};
  }
`;

export const Paste = styled.textarea`
  width: 100%;
  height: 132px;
  border: 1px solid ${ink.ink3};
  border-radius: 2px;
  background: ${ink.paper};
  padding: 6px 8px;
  resize: vertical;
  &::placeholder {
    color: ${ink.ink3};
  }
`;

export const Empty = styled.div`
  padding: 64px 48px;
  max-width: 64ch;
  color: ${ink.ink2};
  h2 {
    color: ${ink.ink};
    margin-bottom: 6px;
  }
`;

export const Tray = styled.section`
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
`;

export const TrayHead = styled.div`
  padding: 12px 20px 10px;
  display: flex;
  align-items: baseline;
  gap: 14px;
  h2 {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    min-width: 0;
  }
  > span:last-child {
    margin-left: auto;
    display: flex;
    gap: 8px;
  }
`;

export const Columns = styled.div`
  overflow-x: auto;
  flex: none;
  margin: 0 20px 10px;
  border-top: 1px solid ${ink.rule};
  border-bottom: 1px solid ${ink.rule};
  table {
    border-collapse: collapse;
    font-size: 12px;
  }
  th {
    text-align: left;
    font-weight: 400;
    padding: 4px 14px 3px 0;
    white-space: nowrap;
    color: ${ink.ink2};
  }
  th small {
    display: block;
    font-size: 12px;
  }
  td {
    padding: 1px 14px 2px 0;
    white-space: nowrap;
    max-width: 220px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  [data-unused] {
    color: ${ink.ink3};
  }
`;

export const Parts = styled(ToggleButtonGroup)`
  display: flex;
  gap: 18px;
  padding: 0 20px 4px;
  button {
    cursor: pointer;
    padding: 3px 0;
    background: none;
    border: 0;
    border-bottom: 2px solid transparent;
    color: ${ink.ink2};
  }
  button[data-selected] {
    color: ${ink.ink};
    font-weight: 600;
    border-bottom-color: ${ink.petal};
  }
  b {
    color: ${ink.ink};
  }
`;

export const Why = styled.span`
  color: ${ink.rose};
`;
