import { useState } from "react";
import { Blank } from "../../parts/Blank";
import { number, parsed } from "../../parts/format";

const isSum = (typed: number | null) => typed !== null && typed >= 0;

/**
 * A sum or count that is typed into a sentence and not kept before the sentence is. It counts as
 * it is typed, so that what follows from it can be pressed at once.
 */
export function useTyped(
  label: string,
  placeholder: string,
  said: (value: number) => string = number,
  first: number | null = null,
) {
  const [taken, setTaken] = useState(first);
  const [draft, setDraft] = useState<string | null>(null);
  const typed = draft === null || draft.trim() === "" ? null : parsed(draft);
  const value = draft === null ? taken : isSum(typed) ? typed : null;
  const blank = (
    <Blank
      label={label}
      value={taken === null ? "" : said(taken)}
      assumed={taken === null}
      placeholder={placeholder}
      onDraft={setDraft}
      onCommit={(text) => {
        const sum = text.trim() === "" ? null : parsed(text);
        if (text.trim() !== "" && !isSum(sum)) return "a number from 0";
        setTaken(sum);
        return true;
      }}
    />
  );
  return { value, blank, clear: () => setTaken(null) };
}
