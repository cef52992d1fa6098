import { css } from "styled-components";
import { ink, serif } from "../look/tokens";

/** Plans a line each, under whose they are. */
export const planLines = css`
  h2 {
    font-family: ${serif};
    font-size: 13.5px;
    font-weight: 600;
    margin: 14px 0 2px;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 0 0 8px;
    border-top: 1px solid ${ink.rule};
  }
  li {
    display: flex;
    align-items: baseline;
    gap: 8px;
    padding: 5px 4px;
    border-bottom: 1px solid ${ink.rule};
  }
  li[data-current] {
    background: ${ink.petalWash};
  }
  li small {
    flex: 1;
    color: ${ink.ink2};
    font-size: 12px;
  }
`;
