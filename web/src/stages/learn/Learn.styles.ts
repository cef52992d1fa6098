import { Sentence as Paragraph } from "../../parts/Sentence";
import styled from "styled-components";
import { ink, whenStacked } from "../../look/tokens";
import { ticks } from "../../parts/ticks";

export const Room = styled.section`
  flex: 1;
  min-width: 0;
  min-height: 0;
  display: flex;
  flex-direction: column;
  ${whenStacked} {
    overflow-y: auto;
    [role="grid"] {
      min-height: 260px;
    }
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
  small {
    font-size: 12px;
    color: ${ink.ink2};
  }
`;

export const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  padding: 0 20px 10px;
  &[data-flat] {
    padding-left: 0;
  }
  small {
    font-size: 12px;
    color: ${ink.ink2};
  }
  kbd {
    font-size: 11px;
    margin-left: 4px;
    opacity: 0.85;
  }
`;

export const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  padding: 0 20px 24px;
  > p {
    max-width: 100ch;
    margin: 0 0 10px;
  }
  a {
    color: ${ink.petalDeep};
  }
  ul {
    margin: 0 0 10px;
    padding-left: 18px;
    font-size: 12.5px;
    color: ${ink.ink2};
  }
`;

export const Assigned = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  margin: 0 0 12px;
`;

export const Days = styled(Paragraph)`
  margin: 0 0 12px;
`;

export const Sentence = styled.section`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 6px;
  margin: 0 0 20px;
  small {
    font-size: 12px;
    color: ${ink.ink2};
    margin-left: 8px;
  }
`;

export const Held = styled.small`
  display: block;
  color: ${ink.rose};
  &[data-held] {
    color: ${ink.moss};
  }
`;

export const Banner = styled.p`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  margin: 0 20px 10px;
  padding: 8px 12px;
  border-left: 3px solid ${ink.petal};
  background: ${ink.petalWash};
  a {
    color: ${ink.petalDeep};
  }
`;

export const Quiet = styled.p`
  padding: 16px 20px;
  color: ${ink.ink2};
`;

export const Faint = styled.span`
  color: ${ink.ink2};
`;

export const Rose = styled.b`
  color: ${ink.rose};
  font-weight: 500;
`;

export const Name = styled.span`
  &[data-call="drop"],
  &[data-call="block"] {
    text-decoration: line-through;
  }
`;

export const Kind = styled.span`
  font-weight: 600;
  &[data-kind="block"],
  &[data-kind="block_family"],
  &[data-kind="block_text"],
  &[data-kind="stop"] {
    color: ${ink.rose};
  }
  &[data-kind="own_keyword"],
  &[data-kind="spot"],
  &[data-kind="raise"] {
    color: ${ink.moss};
  }
  &[data-kind="wait"] {
    font-weight: 400;
    color: ${ink.ink2};
  }
`;

export const Scale = styled.span`
  display: inline-flex;
  align-items: center;
  gap: 8px;
  line {
    stroke: ${ink.ink3};
  }
  path {
    stroke: ${ink.ink2};
  }
  circle {
    fill: ${ink.petal};
  }
  circle[data-verdict="stop"] {
    fill: ${ink.rose};
  }
  circle[data-verdict="raise"] {
    fill: ${ink.moss};
  }
`;

export const Drop = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  padding: 14px 16px;
  margin-bottom: 14px;
  border: 1px dashed ${ink.ink3};
  small {
    flex-basis: 100%;
    font-size: 12px;
    color: ${ink.ink2};
  }
`;

export const Table = styled.table`
  border-collapse: collapse;
  font-size: 12.5px;
  margin: 4px 0 20px;
  caption {
    text-align: left;
    color: ${ink.ink2};
    padding-bottom: 4px;
  }
  th {
    text-align: left;
    font-weight: 500;
  }
  th small {
    display: block;
    font-weight: 400;
    color: ${ink.ink2};
  }
  thead th {
    color: ${ink.ink2};
    font-weight: 400;
  }
  th,
  td {
    padding: 4px 20px 4px 0;
    border-bottom: 1px solid ${ink.rule};
    vertical-align: baseline;
  }
  td[data-number] {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  td button {
    border: 0;
    background: none;
    padding: 0;
    color: ${ink.petalDeep};
    text-decoration: underline;
    cursor: pointer;
  }
`;

export const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 32px;
  margin-bottom: 14px;
  > * {
    min-width: 0;
  }
  ${whenStacked} {
    grid-template-columns: 1fr;
  }
`;

export const Chart = styled.svg`
  display: block;
  line {
    stroke: ${ink.rule};
  }
  text {
    font-size: 11px;
    fill: ${ink.ink2};
    font-variant-numeric: tabular-nums;
  }
  path {
    fill: none;
    stroke: ${ink.petal};
    stroke-width: 2;
  }
  path[data-range] {
    fill: ${ink.petalWash};
    stroke: none;
  }
  path[data-planned] {
    stroke: ${ink.ink2};
    stroke-width: 1.2;
    stroke-dasharray: 5 4;
  }
`;

export const SumTable = styled.table`
  border-collapse: collapse;
  font-size: 12.5px;
  align-self: start;
  caption {
    text-align: left;
    font-size: 13.5px;
    font-weight: 600;
    padding-bottom: 4px;
    small {
      font-weight: 400;
      font-size: 12px;
      color: ${ink.ink2};
    }
  }
  th {
    text-align: left;
    font-weight: 400;
  }
  th,
  td {
    padding: 3px 16px 3px 0;
    border-bottom: 1px solid ${ink.rule};
  }
  td:nth-child(2) {
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  td:last-child {
    width: 100px;
  }
  tr[data-end] th,
  tr[data-end] td {
    font-weight: 600;
    border-bottom-color: ${ink.ink};
  }
  i {
    display: block;
    height: 9px;
    background: ${ink.petalMid};
  }
  i[data-less] {
    background: none;
    border: 1px solid ${ink.rose};
  }
`;

export const Close = styled.section`
  max-width: 72ch;
  h2 {
    font-size: 16px;
    margin-bottom: 4px;
  }
  ${ticks}
  button {
    margin-top: 10px;
  }
`;
