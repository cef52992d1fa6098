import { useState } from "react";
import { Blank } from "../../parts/Blank";
import { number, parsed } from "../../parts/format";

/** A sum or count that is typed into a sentence and not kept before the sentence is. */
export function useTyped(
  label: string,
  placeholder: string,
  said: (value: number) => string = number,
  first: number | null = null,
) {
  const [value, setValue] = useState(first);
  const blank = (
    <Blank
      label={label}
      value={value === null ? "" : said(value)}
      assumed={value === null}
      placeholder={placeholder}
      onCommit={(text) => {
        const typed = text.trim() === "" ? null : parsed(text);
        if (text.trim() !== "" && (typed === null || typed < 0)) return "a number from 0";
        setValue(typed);
        return true;
      }}
    />
  );
  return { value, blank, clear: () => setValue(null) };
}
