import styled from "styled-components";
import { ink } from "../look/tokens";

/** The head of a working screen: its name, then what it is set to. */
export const Top = styled.div`
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 6px 16px;
  padding: 11px 20px 9px;
  h1 {
    font-size: 24px;
    margin-right: 4px;
  }
`;

/** A screen that is read, not worked in. */
export const Page = styled.div`
  padding: 28px 48px;
  overflow-y: auto;
  flex: 1;
`;

export const Quiet = styled.span`
  color: ${ink.ink2};
`;

export const Small = styled.p`
  font-size: 12px;
  color: ${ink.ink2};
`;
