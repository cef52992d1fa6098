import { useState } from "react";
import { Blank } from "../../parts/Blank";
import { dayRead, daySaid } from "../../parts/days";
import { number, parsed } from "../../parts/format";

type Kind<T> = {
  placeholder: string;
  expected: string;
  said: (value: T) => string;
  /** Null where the text says none. */
  read: (text: string) => T | null;
};

const day: Kind<string> = {
  placeholder: "a day",
  expected: "a day, such as 1 March 2027",
  said: daySaid,
  read: dayRead,
};

/**
 * Something typed into a sentence and not kept before the sentence is. It counts as it is typed,
 * so that what follows from it can be pressed at once.
 */
function useSaid<T>(label: string, kind: Kind<T>, first: T | null) {
  const [taken, setTaken] = useState(first);
  const [draft, setDraft] = useState<string | null>(null);
  const read = (text: string) => (text.trim() === "" ? null : kind.read(text));
  const blank = (
    <Blank
      label={label}
      value={taken === null ? "" : kind.said(taken)}
      assumed={taken === null}
      placeholder={kind.placeholder}
      onDraft={setDraft}
      onCommit={(text) => {
        const found = read(text);
        if (found === null && text.trim() !== "") return kind.expected;
        setTaken(found);
        return true;
      }}
    />
  );
  const value = draft === null ? taken : read(draft);
  return { value, blank, clear: () => setTaken(null) };
}

/** A sum or count, 0 or more. */
export const useTyped = (
  label: string,
  placeholder: string,
  said: (value: number) => string = number,
  first: number | null = null,
) => {
  const read = (text: string) => {
    const typed = parsed(text);
    return typed !== null && typed >= 0 ? typed : null;
  };
  return useSaid(label, { placeholder, expected: "a number from 0", said, read }, first);
};

/** A day, ISO 8601. */
export const useTypedDay = (label: string, first: string | null) => useSaid(label, day, first);
