import { useState } from "react";
import { BlankField } from "./Blank";

type Props = {
  label: string;
  /** ISO 8601: 2027-03-01. */
  value: string;
  /** Nobody has entered this yet. */
  assumed?: boolean;
  /** Takes a whole day; false where it was refused. */
  onCommit: (day: string) => Promise<boolean>;
};

/** A day in a sentence, typed or chosen from the browser's calendar. */
export function Day({ label, value, assumed, onCommit }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const commit = async () => {
    if (typed && typed !== value) await onCommit(typed);
    setTyped(null);
  };
  return (
    <BlankField
      type="date"
      aria-label={label}
      data-assumed={assumed || undefined}
      title={assumed ? "assumed: nobody has entered this yet" : undefined}
      value={typed ?? value}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={() => void commit()}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") event.currentTarget.blur();
        if (event.key === "Escape") setTyped(null);
      }}
    />
  );
}
