import { Blank } from "./Blank";
import { dayRead, daySaid } from "./days";

type Props = {
  label: string;
  /** ISO 8601: 2027-03-01; empty where none is said. */
  value: string;
  /** Nobody has entered this yet. */
  assumed?: boolean;
  /** Takes a whole day; false where it was refused. */
  onCommit: (day: string) => Promise<boolean>;
};

/** A day in a sentence: reads as "1 March 2027", typed so or as 2027-03-01. */
export function Day({ label, value, assumed, onCommit }: Props) {
  return (
    <Blank
      label={label}
      value={value && daySaid(value)}
      placeholder="a day"
      assumed={assumed}
      onCommit={(text) => {
        const day = dayRead(text);
        return day === null ? "a day, such as 1 March 2027" : onCommit(day);
      }}
    />
  );
}
