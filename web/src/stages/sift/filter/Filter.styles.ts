import { Button, Popover } from "react-aria-components";
import styled, { css } from "styled-components";
import { ink } from "../../../look/tokens";

export const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 5px 10px;
  padding: 0 20px 8px;
  font-size: 12px;
`;

export const Search = styled.input`
  border: 0;
  border-bottom: 1px solid ${ink.ink3};
  background: ${ink.paper2};
  color: ${ink.ink};
  padding: 3px 8px;
  width: 178px;
  border-radius: 0;
  font-size: 12px;
  &::placeholder {
    color: ${ink.ink2};
  }
`;

const chip = css`
  display: inline-flex;
  align-items: baseline;
  gap: 6px;
  border: 0;
  border-bottom: 1px solid ${ink.ink3};
  background: none;
  padding: 1px 2px;
  max-width: 260px;
  color: ${ink.ink2};
  > span:first-child {
    overflow: hidden;
    white-space: nowrap;
    text-overflow: ellipsis;
  }
  &[data-on] {
    color: ${ink.ink};
    border-bottom: 1.5px solid ${ink.petal};
  }
  input {
    font: inherit;
    border: 0;
    background: ${ink.paper2};
  }
`;

export const Chip = styled.span`
  ${chip}
`;

export const ChipButton = styled(Button)`
  ${chip}
  cursor: pointer;
`;

export const Number = styled.small`
  font-size: 12px;
  font-variant-numeric: tabular-nums;
  color: ${ink.ink2};
`;

export const Away = styled(Button)`
  border: 0;
  background: none;
  padding: 0 3px;
  cursor: pointer;
  color: ${ink.ink2};
`;

export const Count = styled.span`
  margin-left: auto;
  color: ${ink.ink2};
`;

export const Pop = styled(Popover)`
  background: ${ink.paper};
  border: 1px solid ${ink.ink3};
  border-radius: 2px;
  max-height: 420px;
  overflow: auto;
  font-size: 13.5px;
  [role="listbox"] {
    padding: 4px;
    outline: none;
    min-width: 180px;
  }
  [role="option"] {
    display: flex;
    justify-content: space-between;
    gap: 24px;
    padding: 4px 10px 4px 22px;
    cursor: pointer;
    outline: none;
    max-width: 380px;
  }
  [role="option"][data-focused] {
    background: ${ink.petalWash};
  }
  [role="option"][data-selected] {
    font-weight: 600;
    background: ${ink.petalWash};
    position: relative;
  }
  [role="option"][data-selected]::before {
    content: "✓";
    position: absolute;
    left: 7px;
  }
`;

export const Ends = styled.div`
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 8px;
  padding: 12px 14px;
  label {
    display: flex;
    flex-direction: column;
    font-size: 12px;
    color: ${ink.ink2};
    gap: 2px;
  }
  input {
    font: inherit;
    color: ${ink.ink};
    background: ${ink.paper};
    border: 1px solid ${ink.ink3};
    padding: 3px 7px;
    width: 190px;
    &[aria-invalid] {
      border-color: ${ink.rose};
    }
  }
`;

export const SavedRow = styled.div`
  display: flex;
  width: 100%;
  justify-content: space-between;
  > button:last-child {
    border: 0;
    background: none;
    cursor: pointer;
    color: ${ink.ink2};
  }
`;

export const Unread = styled.small`
  display: block;
  font-size: 12px;
  color: ${ink.rose};
`;
