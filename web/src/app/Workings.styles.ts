import { Button } from "react-aria-components";
import styled from "styled-components";
import { ink } from "../look/tokens";

export const Panel = styled.aside`
  width: 300px;
  flex: none;
  overflow-y: auto;
  border-left: 1px solid ${ink.rule};
  background: ${ink.paper2};
  padding: 16px 18px 24px;
  position: relative;
  h2 {
    padding-right: 24px;
    overflow-wrap: anywhere;
  }
`;

export const Close = styled.div`
  position: absolute;
  top: 12px;
  right: 10px;
  button {
    border: 0;
    background: none;
    padding: 4px;
    cursor: pointer;
    color: ${ink.ink2};
    display: flex;
  }
`;

export const Quiet = styled.p`
  color: ${ink.ink2};
  padding-right: 24px;
`;

export const About = styled.div`
  color: ${ink.ink2};
  font-size: 12px;
  margin-top: 3px;
`;

export const Note = styled.p`
  font-size: 12px;
  color: ${ink.straw};
  margin-top: 4px;
  &::before {
    content: "※ ";
  }
`;

export const Sum = styled.section`
  margin-top: 14px;
  border-top: 1px solid ${ink.rule};
  padding-top: 9px;
  h3 {
    font-family: inherit;
    font-size: 12px;
    font-weight: 400;
    color: ${ink.ink2};
    margin-bottom: 3px;
  }
  dl {
    margin: 0;
  }
`;

export const Row = styled.div`
  display: flex;
  justify-content: space-between;
  gap: 10px;
  padding: 2px 0;
  dt small {
    display: block;
    font-size: 12px;
    line-height: 1.25;
    color: ${ink.ink2};
  }
  dd {
    margin: 0;
    text-align: right;
    flex: none;
    max-width: 62%;
  }
  &[data-result] {
    border-top: 1px solid ${ink.ink};
    font-weight: 600;
    margin-top: 2px;
  }
  &[data-result] dt small {
    font-weight: 400;
  }
`;

export const Effect = styled.small`
  display: block;
  color: ${ink.straw};
  font-size: 12px;
  text-align: right;
`;

export const Back = styled(Button)`
  border: 0;
  background: none;
  padding: 0 3px;
  cursor: pointer;
  color: ${ink.straw};
`;
