import { useState } from "react";
import { FileTrigger, ToggleButton } from "react-aria-components";
import { client, taken, type Schemas } from "../../../data/client";
import { Button, MainButton } from "../../../parts/Button";
import { Small } from "../../../parts/Screen";
import { number, plural } from "../../../parts/format";
import type { Brought } from "../tray";
import * as S from "../Gather.styles";
import { useReading } from "../useReading";

type Props = { onTray: Brought };

/** A page's words, ranked by where they stand, ready to look up. */
export function PageSource({ onTray }: Props) {
  const { busy, read, path } = useReading();
  const [content, setContent] = useState("");
  const [words, setWords] = useState<Schemas["PageWordItem"][] | null>(null);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const weigh = (html: string) =>
    read(
      "the page",
      () =>
        taken(
          client.POST("/api/plans/{plan_id}/gather/page", { ...path, body: { content: html } }),
        ),
      (answer) => {
        setWords(answer);
        setPicked(new Set(answer.slice(0, 12).map((word) => word.text)));
      },
    );
  const lookUp = () =>
    read(
      "the almanac",
      () =>
        taken(
          client.POST("/api/plans/{plan_id}/gather/almanac", {
            ...path,
            body: { roots: [...picked], page: 0, near_only: false, only_these: true },
          }),
        ),
      (tray) => onTray(tray),
    );
  const toggle = (text: string, is: boolean) => {
    const next = new Set(picked);
    if (is) next.add(text);
    else next.delete(text);
    setPicked(next);
  };
  return (
    <>
      <h2>A page</h2>
      <Small>
        Paste a page&rsquo;s text or its HTML, your own or another&rsquo;s, or choose a saved one.
        Title and headings weigh most, then links, then text.
      </Small>
      <S.Paste
        aria-label="Page text or HTML"
        value={content}
        spellCheck={false}
        onChange={(event) => setContent(event.currentTarget.value)}
      />
      <S.Line>
        <Button isDisabled={!content.trim() || busy !== null} onPress={() => void weigh(content)}>
          Weigh its words
        </Button>
        <FileTrigger
          acceptedFileTypes={[".html", ".htm", ".txt", "text/html"]}
          onSelect={(files) => void files?.[0]?.text().then(weigh)}
        >
          <Button>Choose a saved page …</Button>
        </FileTrigger>
        {words && (
          <MainButton isDisabled={!picked.size || busy !== null} onPress={() => void lookUp()}>
            Look {plural(picked.size, "keyword")} up in the almanac
          </MainButton>
        )}
      </S.Line>
      {words && (
        <S.Words role="group" aria-label="Words of the page, by weight">
          {words.map((word) => (
            <ToggleButton
              key={word.text}
              isSelected={picked.has(word.text)}
              onChange={(is) => toggle(word.text, is)}
            >
              {word.text} <small>{number(word.weight, 0)}</small>
            </ToggleButton>
          ))}
        </S.Words>
      )}
    </>
  );
}
