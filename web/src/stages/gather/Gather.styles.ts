import { ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";
import { ink, serif, whenStacked } from "../../look/tokens";

export const Split = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  ${whenStacked} {
    flex-direction: column;
  }
`;

export const Sources = styled.div`
  width: 212px;
  flex: none;
  overflow-y: auto;
  padding: 11px 0 20px;
  border-right: 1px solid ${ink.rule};
  h1 {
    font-size: 24px;
    padding: 0 20px 10px;
  }
  [role="option"] {
    display: block;
    padding: 7px 16px 8px 17px;
    border-left: 3px solid transparent;
    cursor: pointer;
    outline-offset: -2px;
    b {
      font-weight: 500;
      display: block;
    }
    small {
      font-size: 12px;
      color: ${ink.ink2};
    }
    &[data-hovered] {
      background: ${ink.paper2};
    }
    &[data-selected] {
      background: ${ink.petalWash};
      border-left-color: ${ink.petal};
      b {
        font-weight: 600;
      }
    }
  }
  ${whenStacked} {
    width: auto;
    padding: 6px 0 0;
    border-right: 0;
    border-bottom: 1px solid ${ink.rule};
    display: flex;
    align-items: baseline;
    overflow: visible;
    h1 {
      font-size: 18px;
      padding: 0 6px 4px 12px;
    }
    [role="listbox"] {
      display: flex;
      min-width: 0;
      overflow-x: auto;
    }
    [role="option"] {
      white-space: nowrap;
      padding: 5px 14px 6px;
      border-left: 0;
      border-bottom: 3px solid transparent;
      &[data-selected] {
        border-bottom-color: ${ink.petal};
      }
      small {
        display: none;
      }
    }
  }
`;

/** One source's own page. */
export const Source = styled.div`
  flex: 1;
  min-width: 0;
  overflow-y: auto;
  padding: 15px 20px 24px;
  h2 {
    font-size: 16px;
    margin-bottom: 6px;
  }
  > p {
    max-width: 72ch;
  }
`;

/** A source whose list takes the rest of the height, and some rows' height where there is none. */
export const Fill = styled.div`
  display: flex;
  flex-direction: column;
  height: 100%;
  margin: 0 -20px -24px;
  > * {
    flex-shrink: 0;
  }
  > [role="grid"] {
    min-height: 190px;
  }
  > h2,
  > p,
  > div:not([role]),
  > details {
    padding-left: 20px;
    padding-right: 20px;
  }
`;

export const Sentence = styled.div`
  font-family: ${serif};
  font-size: 18px;
  line-height: 1.7;
  margin: 8px 0 10px;
  max-width: 46em;
`;

export const CrossPart = styled.span`
  display: inline-flex;
  flex-direction: column;
  vertical-align: top;
  margin-right: 10px;
  max-width: 100%;
  i {
    font-style: normal;
    color: ${ink.ink2};
  }
  small {
    display: flex;
    gap: 12px;
    padding: 2px 0 6px 10px;
    font:
      12px "IBM Plex Sans",
      sans-serif;
    color: ${ink.ink2};
  }
  label {
    display: inline-flex;
    align-items: center;
    gap: 5px;
    cursor: pointer;
    border-radius: 2px;
  }
  &[data-off] input {
    text-decoration: line-through;
    opacity: 0.7;
  }
`;

export const Box = styled.span`
  display: inline-flex;
  width: 14px;
  height: 14px;
  border: 1px solid ${ink.ink3};
  border-radius: 2px;
  align-items: center;
  justify-content: center;
  font-size: 11px;
  color: ${ink.petalDeep};
  label[data-focus-visible] & {
    outline: 2px solid ${ink.petal};
    outline-offset: 1px;
  }
`;

export const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  margin: 10px 0;
  > [role="radiogroup"] {
    padding: 0;
  }
  input {
    font: inherit;
    padding: 4px 8px;
    border: 1px solid ${ink.ink3};
    border-radius: 2px;
    background: ${ink.paper};
    color: ${ink.ink};
  }
  label {
    display: inline-flex;
    align-items: center;
    gap: 5px;
    cursor: pointer;
  }
`;

export const Preview = styled.ul`
  columns: 3 220px;
  column-gap: 28px;
  margin: 6px 0 12px;
  padding: 8px 0;
  border-top: 1px solid ${ink.rule};
  border-bottom: 1px solid ${ink.rule};
  list-style: none;
  min-height: 60px;
  li {
    break-inside: avoid;
    padding: 2px 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

export const Words = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
  margin: 12px 0;
  button {
    background: none;
    border: 0;
    border-bottom: 1.5px solid ${ink.rule};
    padding: 2px 3px;
    cursor: pointer;
    color: ${ink.ink2};
    &[data-selected] {
      color: ${ink.petalDeep};
      font-weight: 600;
      border-bottom-color: ${ink.petal};
      &::before {
        content: "✓ ";
      }
    }
  }
  small {
    font-size: 12px;
    color: ${ink.ink2};
    font-weight: 400;
  }
`;

export const Short = styled.table`
  border-collapse: collapse;
  margin: 10px 0;
  th,
  td {
    text-align: left;
    font-weight: 400;
    padding: 4px 26px 4px 0;
    border-bottom: 1px solid ${ink.rule};
  }
  th {
    font-size: 12px;
    color: ${ink.ink2};
  }
`;

export const Rose = styled.span`
  color: ${ink.rose};
`;

export const Units = styled.div`
  padding: 0 20px 8px;
  color: ${ink.ink2};
  a {
    color: ${ink.petalDeep};
    text-underline-offset: 3px;
  }
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 6px;
  [data-chosen] {
    font-weight: 600;
    text-decoration: none;
    &::before {
      content: "✓ ";
    }
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
