import styled from "styled-components";
import { ink, serif } from "../../../look/tokens";

export const Cards = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  display: flex;
  flex-wrap: wrap;
  align-items: flex-start;
  gap: 24px 40px;
  padding: 14px 20px 24px;
  border-top: 1.5px solid ${ink.ink};
`;

export const Card = styled.article`
  flex: 1 1 440px;
  max-width: 620px;
`;

export const Progress = styled.p`
  margin: 12px 0 4px;
  color: ${ink.ink2};
`;

export const Keyword = styled.h2`
  font-family: ${serif};
  font-size: 28px;
  line-height: 1.2;
  margin: 4px 0 6px;
`;

export const Line = styled.p`
  color: ${ink.ink2};
  margin: 6px 0;
  min-height: 20px;
  svg {
    vertical-align: -3px;
  }
`;

export const Facts = styled.dl`
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 10px 24px;
  margin: 12px 0;
  div {
    border-top: 1px solid ${ink.rule};
    padding-top: 4px;
  }
  dt {
    font-size: 12px;
    color: ${ink.ink2};
  }
  dd {
    margin: 0;
    font-size: 16px;
  }
`;

export const Beside = styled.div`
  flex: 0 1 300px;
  min-width: 240px;
  h3 {
    margin: 4px 0;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 0 0 16px;
  }
  li {
    display: flex;
    gap: 8px;
    align-items: center;
    border-bottom: 1px solid ${ink.rule};
    padding: 3px 0;
  }
  li > svg,
  li > span:first-child {
    flex: none;
    width: 18px;
  }
  li span {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    color: ${ink.ink2};
    font-size: 12px;
  }
`;

export const Done = styled.p`
  padding: 40px 24px;
  color: ${ink.ink2};
`;
