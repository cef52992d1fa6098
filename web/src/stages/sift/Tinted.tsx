import styled from "styled-components";
import { ink } from "../../look/tokens";

type Props = { text: string; kinds: string | undefined };

const said: Record<string, string> = {
  "!": "a warning word",
  o: "a place of yours",
  p: "another place",
  h: "a helper word",
};

/** A keyword with its words tinted by kind; each tint has a shape of its own too. */
export function Tinted({ text, kinds = "" }: Props) {
  const words = text.split(/\s+/);
  if (kinds.length !== words.length || !/[!oph]/.test(kinds)) return <>{text}</>;
  return (
    <>
      {words.map((word, at) => (
        <Word key={at} data-kind={kinds[at]} title={said[kinds[at] ?? ""]}>
          {at > 0 && " "}
          {word}
        </Word>
      ))}
    </>
  );
}

const Word = styled.span`
  &[data-kind="o"] {
    color: ${ink.moss};
  }
  &[data-kind="p"] {
    color: ${ink.straw};
    font-style: italic;
  }
  &[data-kind="h"] {
    font-weight: 600;
  }
  &[data-kind="!"] {
    color: ${ink.rose};
    text-decoration: underline dotted 1px;
    text-underline-offset: 3px;
  }
`;
