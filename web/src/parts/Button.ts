import { Button as AriaButton } from "react-aria-components";
import styled from "styled-components";
import { ink } from "../look/tokens";

/** A quiet button: text and a hairline. */
export const Button = styled(AriaButton)`
  background: ${ink.paper};
  border: 1px solid ${ink.ink3};
  border-radius: 2px;
  padding: 4px 12px;
  cursor: pointer;
  white-space: nowrap;
  &[data-hovered] {
    background: ${ink.petalWash};
  }
  &[data-disabled] {
    color: ${ink.ink3};
    border-color: ${ink.rule};
    cursor: default;
  }
`;

/** The one main action of a screen. */
export const MainButton = styled(Button)`
  background: ${ink.petal};
  border-color: ${ink.petal};
  color: ${ink.paper};
  font-weight: 500;
  &[data-hovered] {
    background: ${ink.petalDeep};
  }
  kbd {
    background: none;
    border-color: ${ink.petalMid};
    font-weight: 400;
  }
  &[data-disabled] {
    background: ${ink.paper2};
    border-color: ${ink.rule};
    color: ${ink.ink3};
  }
`;

/** A button that reads as text. */
export const TextButton = styled(AriaButton)`
  background: none;
  border: 0;
  padding: 2px 4px;
  border-radius: 2px;
  cursor: pointer;
  color: ${ink.petalDeep};
  text-decoration: underline;
  text-underline-offset: 3px;
  &[data-disabled] {
    color: ${ink.ink3};
    text-decoration: none;
    cursor: default;
  }
`;
