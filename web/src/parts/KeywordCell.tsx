import type { ReactNode } from "react";
import styled from "styled-components";
import { ink } from "../look/tokens";

type Props = {
  text: string;
  match: string | undefined;
  /** The text as it is drawn, where that is more than plain. */
  children?: ReactNode;
};

/** A keyword of a list: where room is short its text is cut, never its match type. */
export function KeywordCell({ text, match, children }: Props) {
  return (
    <Whole title={text}>
      <Text className="keyword">{children ?? text}</Text>
      {match !== "exact" && <small> {match}</small>}
    </Whole>
  );
}

const Whole = styled.span`
  display: flex;
  align-items: baseline;
  gap: 0.3em;
  min-width: 0;
  small {
    flex: none;
    color: ${ink.straw};
    font-size: 12px;
  }
`;

const Text = styled.span`
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;
