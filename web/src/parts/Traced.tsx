import { Button } from "react-aria-components";
import styled from "styled-components";
import { ink } from "../look/tokens";

/** A figure that opens its workings when pressed; looks like the text it stands in. */
export const Traced = styled(Button)`
  border: 0;
  background: none;
  padding: 0;
  font: inherit;
  color: inherit;
  text-align: inherit;
  cursor: pointer;
  &[data-hovered] {
    color: ${ink.petalDeep};
    text-decoration: underline;
    text-underline-offset: 3px;
  }
`;
