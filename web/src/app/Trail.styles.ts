import { Button } from "react-aria-components";
import styled from "styled-components";
import { ink, lineHeight, trailHeight, whenNarrow } from "../look/tokens";

export const Bar = styled.header`
  display: flex;
  align-items: stretch;
  min-height: ${trailHeight}px;
  border-bottom: 1.5px solid ${ink.ink};
  background: ${ink.paper};
  ${whenNarrow} {
    min-height: ${lineHeight}px;
  }
`;

export const Menu = styled.span`
  display: flex;
  align-items: baseline;
  align-self: center;
  gap: 10px;
  padding: 0 12px;
  white-space: nowrap;
  small {
    font-size: 12px;
    color: ${ink.ink2};
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;

export const Path = styled.nav`
  display: flex;
  flex: 1 1 auto;
  min-width: 0;
  overflow-x: auto;
  border-left: 1px solid ${ink.rule};
  a {
    display: flex;
    flex-direction: column;
    justify-content: center;
    padding: 0 14px;
    border-right: 1px solid ${ink.rule};
    border-bottom: 3px solid transparent;
    border-top: 3px solid transparent;
    text-decoration: none;
    color: ${ink.ink};
    white-space: nowrap;
    outline-offset: -3px;
  }
  a small {
    font-size: 12px;
    color: ${ink.ink2};
  }
  @media (max-width: 1180px) {
    a {
      padding: 0 12px;
    }
    a small {
      display: none;
    }
  }
  a strong {
    font-weight: 600;
  }
  a:hover {
    background: ${ink.paper2};
  }
  a.active {
    background: ${ink.petalWash};
    border-bottom-color: ${ink.petal};
  }
  a.active strong {
    color: ${ink.petalDeep};
  }
`;

export const Tools = styled.div`
  display: flex;
  align-items: center;
  gap: 2px;
  padding: 0 14px 0 8px;
  @media (max-width: 1180px) {
    padding: 0 8px 0 4px;
    span {
      display: none;
    }
  }
`;

export const Tool = styled(Button)`
  display: inline-flex;
  align-items: center;
  gap: 5px;
  border: 0;
  background: none;
  border-radius: 2px;
  padding: 6px;
  color: ${ink.ink};
  font-size: 12px;
  cursor: pointer;
  &[data-hovered] {
    background: ${ink.petalWash};
  }
  &[data-disabled] {
    color: ${ink.ink3};
    opacity: 0.6;
    cursor: default;
  }
`;
