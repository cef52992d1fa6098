import styled from "styled-components";
import { ink, whenStacked } from "../../../look/tokens";

export const Room = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  ${whenStacked} {
    min-height: 420px;
  }
`;

export const Facts = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 16px;
  padding: 0 20px 8px;
  p {
    max-width: 96ch;
  }
`;

export const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 8px;
  padding: 0 20px 10px;
  > span {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 8px;
    margin-left: auto;
    font-size: 12.5px;
    color: ${ink.ink2};
  }
`;

export const Leaves = styled.div`
  padding: 4px 20px 6px;
  border-top: 1px solid ${ink.rule};
  font-size: 13.5px;
`;

export const Summary = styled.p`
  padding: 0 20px 8px;
  font-size: 12.5px;
  max-width: 120ch;
  b[data-state="refused"] {
    color: ${ink.rose};
  }
`;

export const Quiet = styled.p`
  padding: 12px 20px;
  color: ${ink.ink2};
`;

export const Opening = styled.section`
  padding: 10px 20px 24px;
  max-width: 72ch;
  h2 {
    font-size: 20px;
    margin-bottom: 8px;
  }
  p,
  [role="paragraph"] {
    margin: 0 0 12px;
  }
  > div:not([role]) {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
`;

export const Rose = styled.b`
  color: ${ink.rose};
  font-weight: 500;
`;

export const Moss = styled.b`
  color: ${ink.moss};
  font-weight: 500;
`;

export const Cell = styled.span`
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;

export const State = styled.span`
  &[data-state="refused"] {
    color: ${ink.rose};
    font-weight: 600;
  }
  &[data-state="warned"] {
    color: ${ink.straw};
    font-weight: 600;
  }
`;

export const Passing = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 20px 10px;
  font-size: 12.5px;
  i {
    flex: 1;
    height: 5px;
    border: 1px solid ${ink.ink3};
  }
  i b {
    display: block;
    height: 100%;
    background: ${ink.petal};
  }
`;

export const Results = styled.section`
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  padding: 0 20px 16px;
  p {
    max-width: 110ch;
    margin-bottom: 8px;
  }
  a {
    color: ${ink.petalDeep};
    margin-right: 12px;
  }
  svg {
    display: block;
  }
  svg line {
    stroke: ${ink.rule};
  }
  svg text {
    font-size: 11px;
    fill: ${ink.ink2};
    font-variant-numeric: tabular-nums;
  }
  svg rect {
    fill: ${ink.petalMid};
  }
  svg rect[data-cut] {
    stroke: ${ink.rose};
    stroke-width: 1.5;
  }
  svg circle {
    fill: ${ink.ink};
    stroke: ${ink.paper};
  }
`;
