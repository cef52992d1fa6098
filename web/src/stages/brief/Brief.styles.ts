import styled from "styled-components";
import { ink, serif } from "../../look/tokens";

export const Split = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  > aside {
    width: 37%;
    max-width: 470px;
    flex: none;
  }
`;

export const Letter = styled.div`
  flex: 1;
  min-width: 0;
  overflow-y: auto;
  padding: 16px 40px 16px 48px;
  h1 {
    margin-bottom: 8px;
  }
`;

export const Sentence = styled.div`
  font-family: ${serif};
  font-size: 18px;
  line-height: 1.52;
  margin-bottom: 5px;
  max-width: 46em;
`;

export const Aside = styled.span`
  font-family: "IBM Plex Sans", sans-serif;
  font-size: 12px;
  color: ${ink.ink2};
  a {
    color: ${ink.petalDeep};
    text-underline-offset: 3px;
  }
`;

export const Strange = styled.div`
  border-left: 3px solid ${ink.rose};
  padding: 4px 12px;
  margin: 6px 0 12px;
  color: ${ink.rose};
  max-width: 46em;
`;

/** What results of the past say, between the sentences it may fill. */
export const Past = styled.p`
  border-left: 3px solid ${ink.moss};
  padding: 3px 12px;
  margin: 4px 0 8px;
  max-width: 62em;
  color: ${ink.ink2};
  b {
    color: ${ink.ink};
  }
`;

export const Legend = styled.div`
  font-size: 12px;
  color: ${ink.ink2};
  margin: 2px 0 12px;
  b {
    font-weight: 600;
    color: ${ink.petalDeep};
    border-bottom: 1.5px solid ${ink.petal};
  }
  i {
    font-style: normal;
    font-weight: 600;
    color: ${ink.straw};
    border-bottom: 1.5px dashed ${ink.straw};
  }
`;

export const Table = styled.table`
  border-collapse: collapse;
  caption {
    text-align: left;
    font-size: 12px;
    color: ${ink.ink2};
    padding-bottom: 4px;
  }
  th,
  td {
    padding: 4px 14px 4px 0;
    border-bottom: 1px solid ${ink.rule};
    font-weight: 400;
    text-align: left;
  }
  td,
  thead th + th {
    text-align: right;
    min-width: 66px;
    padding-right: 0;
    padding-left: 10px;
  }
  td[data-missed] {
    color: ${ink.rose};
    font-weight: 600;
  }
`;

export const Steps = styled.aside`
  overflow-y: auto;
  background: ${ink.paper2};
  border-left: 1px solid ${ink.rule};
  padding: 26px 30px;
  h2 + p {
    font-size: 12px;
    color: ${ink.ink2};
    margin: 2px 0 10px;
  }
`;

export const Step = styled.div`
  margin-bottom: 7px;
  font-size: 12px;
  color: ${ink.ink2};
  div {
    height: 20px;
    padding: 0 6px;
    color: ${ink.ink};
    font-weight: 600;
    font-size: 13.5px;
    white-space: nowrap;
    transition: width 140ms;
  }
`;

export const Dots = styled.div`
  margin: 14px 0 12px;
  font-size: 12px;
  color: ${ink.ink2};
  svg {
    display: block;
    margin-top: 5px;
    width: 100%;
    max-width: 396px;
  }
`;

export const Ceiling = styled.div`
  border-top: 1.5px solid ${ink.ink};
  padding-top: 8px;
  display: flex;
  align-items: center;
  gap: 16px;
  strong {
    font-family: ${serif};
    font-size: 52px;
    font-weight: 600;
    line-height: 1.1;
    color: ${ink.petalDeep};
  }
  span {
    color: ${ink.ink2};
  }
`;

export const Say = styled.p`
  margin-top: 12px;
  color: ${ink.ink2};
  max-width: 46ch;
`;

/** The season beside the price read backwards. */
export const Beside = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 18px 28px;
  align-items: flex-start;
`;

export const SeasonBox = styled.div`
  width: 196px;
  > p {
    font-size: 12px;
    color: ${ink.ink2};
    padding-bottom: 4px;
  }
  > div {
    display: flex;
    gap: 2px;
    height: 92px;
    align-items: stretch;
    touch-action: none;
  }
`;

export const Month = styled.div`
  flex: 1;
  position: relative;
  cursor: ns-resize;
  border-bottom: 1px solid ${ink.ink3};
  border-radius: 2px;
  margin-bottom: 16px;
  i {
    position: absolute;
    left: 0;
    right: 0;
    bottom: 0;
    background: ${ink.petalMid};
  }
  &[data-assumed] i {
    background: none;
    border: 1px dashed ${ink.straw};
    border-bottom: 0;
  }
  span {
    position: absolute;
    bottom: -17px;
    left: 0;
    right: 0;
    text-align: center;
    font-size: 12px;
    color: ${ink.ink2};
  }
`;

export const Assumed = styled.div`
  margin: 18px 0 8px;
  table {
    margin-top: 10px;
    font-size: 12px;
    max-width: 780px;
    td:nth-child(2) {
      white-space: nowrap;
      text-align: left;
    }
    td:nth-child(3),
    td:nth-child(4) {
      text-align: left;
      color: ${ink.ink2};
    }
    thead th + th {
      text-align: left;
      padding-left: 14px;
    }
  }
`;
