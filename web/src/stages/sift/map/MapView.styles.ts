import styled from "styled-components";
import { ink } from "../../../look/tokens";

export const Tools = styled.div`
  padding: 0 20px 6px;
  font-size: 12px;
  color: ${ink.ink2};
`;

export const Box = styled.div`
  position: relative;
  flex: 1;
  min-height: 0;
  overflow: hidden;
  border-top: 1.5px solid ${ink.ink};
  canvas {
    display: block;
    touch-action: none;
    cursor: crosshair;
  }
`;

export const Told = styled.div`
  position: absolute;
  right: 12px;
  top: 10px;
  background: ${ink.paper};
  border-bottom: 1.5px solid ${ink.petal};
  padding: 2px 8px;
  &:empty {
    display: none;
  }
`;
