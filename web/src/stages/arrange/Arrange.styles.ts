import styled from "styled-components";
import { ink, serif, whenStacked } from "../../look/tokens";

export const Screen = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
`;

export const Tools = styled.span`
  margin-left: auto;
  font-size: 12px;
`;

export const Halves = styled.div`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(340px, 2fr);
  border-top: 1.5px solid ${ink.ink};
  ${whenStacked} {
    display: block;
    overflow-y: auto;
  }
`;

export const Half = styled.section`
  min-height: 0;
  display: flex;
  flex-direction: column;
  & + & {
    border-left: 1.5px solid ${ink.ink};
  }
  ${whenStacked} {
    height: 240px;
    & + & {
      border-left: 0;
      border-top: 1.5px solid ${ink.ink};
      height: auto;
    }
  }
`;

/** A group's part of the purse, as a length and as a figure. */
export const Share = styled.span`
  display: flex;
  align-items: center;
  justify-content: flex-end;
  gap: 6px;
  i {
    height: 8px;
    background: ${ink.petalMid};
  }
`;

export const Soft = styled.span`
  color: ${ink.ink2};
`;

export const Faint = styled.span`
  color: ${ink.ink2};
  font-size: 12px;
`;

export const About = styled.div`
  padding: 10px 20px 8px;
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 5px;
  > * {
    max-width: 100%;
  }
  h2 {
    font-size: 18px;
  }
  p {
    color: ${ink.ink2};
    font-size: 12px;
  }
`;

/** A line of what can be done, over a sheet. */
export const Bar = styled.div`
  padding: 7px 20px;
  font-size: 12px;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 6px;
  color: ${ink.ink2};
  a {
    color: ${ink.petalDeep};
    text-underline-offset: 3px;
    padding: 2px 4px;
  }
`;

/** A group's name, where it belongs, and its leaves. */
export const LeafHead = styled.div`
  flex: none;
  padding: 10px 20px 8px;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
  gap: 4px 14px;
  h2 {
    font-size: 18px;
    min-width: 0;
  }
  > span {
    color: ${ink.ink2};
    font-size: 12px;
  }
  > div {
    flex: none;
    margin-right: auto;
  }
`;

export const Bare = styled.p`
  padding: 24px 20px;
  color: ${ink.ink2};
`;

export const List = styled.ul`
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  list-style: none;
  margin: 0;
  padding: 0 20px 20px;
  border-top: 1.5px solid ${ink.ink};
  li {
    padding: 10px 0;
    border-bottom: 1px solid ${ink.rule};
    max-width: 90ch;
  }
  p + p {
    margin-top: 3px;
  }
  small {
    color: ${ink.ink2};
    font-size: 12px;
  }
`;

export const Ways = styled.div`
  display: flex;
  flex-direction: column;
  gap: 4px;
  label {
    display: grid;
    grid-template-columns: 20px 1fr;
    gap: 2px 6px;
    padding: 6px 4px;
    border-bottom: 1px solid ${ink.rule};
    cursor: pointer;
  }
  small {
    grid-column: 2;
    color: ${ink.ink2};
    font-size: 12px;
  }
`;

/** What is wrong, said in words and in ink. */
export const Wrong = styled.span`
  color: ${ink.rose};
`;

export const Foot = styled.p`
  flex: none;
  padding: 7px 20px 8px;
  border-top: 1px solid ${ink.rule};
  color: ${ink.ink2};
  font-size: 12px;
  max-height: 64px;
  overflow-y: auto;
`;

export const Paste = styled.textarea`
  width: 100%;
  padding: 7px 9px;
  border: 1px solid ${ink.ink2};
  border-radius: 2px;
  background: ${ink.paper};
  color: ${ink.ink};
  font: inherit;
  resize: vertical;
`;

export const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 6px 14px;
  margin: 9px 0;
  input {
    width: 300px;
    max-width: 60vw;
    border: 0;
    border-bottom: 1px solid ${ink.ink2};
    background: none;
    color: ${ink.ink};
    font: inherit;
  }
`;

export const Lines = styled.ul.attrs({ tabIndex: 0 })`
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 32vh;
  overflow-y: auto;
  border-top: 1px solid ${ink.rule};
  li {
    padding: 5px 0;
    border-bottom: 1px solid ${ink.rule};
    font-size: 13px;
  }
`;

/** A campaign across the outline: its name as a heading, the rest in small. */
export const CampaignLine = styled.div`
  padding-left: 16px;
  flex: 1;
  &[data-drop] {
    background: ${ink.petalWash};
    outline: 2px solid ${ink.petal};
    outline-offset: -2px;
  }
  display: flex;
  align-items: baseline;
  gap: 14px;
  white-space: nowrap;
  overflow: hidden;
  font-size: 12px;
  color: ${ink.ink2};
  button {
    font: 600 15px ${serif};
    color: ${ink.ink};
    text-decoration: none;
    min-width: 80px;
    text-align: left;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  b {
    flex: none;
    color: ${ink.ink};
    font-size: 13.5px;
  }
  span {
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;

export const Say = styled.div`
  font-size: 13.5px;
  line-height: 1.9;
  h3 {
    font: 600 15px ${serif};
  }
`;

/** What is said of a campaign, as long as it is. */
export const Scrolled = styled(About)`
  flex: 1;
  min-height: 0;
  overflow-y: auto;
`;

export const Straw = styled.span`
  color: ${ink.straw};
  [data-active] &,
  [aria-selected="true"] & {
    color: ${ink.ink}; /* straw is too pale on the petal's wash */
  }
`;

/** A plain list of lines. */
export const Plain = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    padding: 6px 0;
    border-bottom: 1px solid ${ink.rule};
  }
  small {
    color: ${ink.ink2};
    font-size: 12px;
  }
`;

/** Words and what is done about them, on one line where there is room for both. */
export const Together = styled.span`
  display: inline-block;
  max-width: 100%;
  margin-right: 14px;
`;
