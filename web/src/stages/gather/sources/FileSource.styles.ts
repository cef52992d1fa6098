import styled from "styled-components";
import { ink } from "../../../look/tokens";

export const TwoWays = styled.div`
  display: grid;
  grid-template-columns: minmax(260px, 1fr) minmax(300px, 1.4fr);
  gap: 36px;
  max-width: 980px;
  > div:last-child {
    display: flex;
    flex-direction: column;
    align-items: flex-start;
    gap: 8px;
  }
  textarea {
    height: 300px;
  }
`;

export const About = styled.div`
  margin-top: 28px;
  color: ${ink.ink2};
  h3 {
    font-size: 13.5px;
    color: ${ink.ink};
    margin-bottom: 4px;
  }
`;

export const Drop = styled.div`
  border: 1px dashed ${ink.ink3};
  padding: 18px 14px;
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 8px;
  [data-drop-target] & {
    background: ${ink.petalWash};
    border-color: ${ink.petal};
  }
`;
