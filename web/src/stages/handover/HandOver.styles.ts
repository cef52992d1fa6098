import styled from "styled-components";
import { ink, whenStacked } from "../../look/tokens";

export const Split = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  ${whenStacked} {
    display: block;
    overflow-y: auto;
  }
`;

export const Sheet = styled.section`
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  ${whenStacked} {
    height: 300px;
  }
`;

export const Head = styled.div`
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 8px 16px;
  padding: 11px 20px 10px;
  h1 {
    font-size: 24px;
  }
  > span {
    margin-left: auto;
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
`;

export const Side = styled.aside`
  width: 300px;
  flex: none;
  overflow-y: auto;
  border-left: 1px solid ${ink.rule};
  background: ${ink.paper2};
  padding: 16px 18px;
  ${whenStacked} {
    width: auto;
    border-left: 0;
    border-top: 1.5px solid ${ink.ink};
  }
  h2 {
    display: flex;
    justify-content: space-between;
    font-size: 16px;
    margin-bottom: 6px;
  }
  ul {
    list-style: none;
    margin: 0 0 22px;
    padding: 0;
  }
  li {
    padding: 6px 0;
    border-top: 1px solid ${ink.rule};
    overflow-wrap: anywhere;
  }
  li small {
    display: block;
    color: ${ink.ink2};
    font-size: 12px;
  }
  p {
    color: ${ink.ink2};
    margin-bottom: 22px;
  }
  a {
    color: ${ink.petalDeep};
  }
`;
