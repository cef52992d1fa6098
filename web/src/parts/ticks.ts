import { css } from "styled-components";
import { ink } from "../look/tokens";

/** Boxes to be ticked: a label each, its box an empty span before the words. */
export const ticks = css`
  label {
    display: flex;
    align-items: center;
    gap: 6px;
    padding: 2px 0;
    cursor: pointer;
  }
  label > span {
    width: 12px;
    height: 12px;
    flex: none;
    border: 1px solid ${ink.ink3};
  }
  label[data-selected] > span {
    background: ${ink.petal};
    border-color: ${ink.petal};
    @media (forced-colors: active) {
      forced-color-adjust: none;
      background: CanvasText;
    }
  }
  label[data-focus-visible] {
    outline: 2px solid ${ink.petal};
  }
`;
