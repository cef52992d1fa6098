import { ink } from "../look/tokens";

type Props = { call: string };

/** The proof-reader's mark in the margin; nothing where a keyword is not yet called. */
export function CallMark({ call }: Props) {
  if (call === "none") return <span className="unseen" aria-label="not yet called" role="img" />;
  return (
    <svg width="16" height="16" viewBox="0 0 16 16" role="img" aria-label={call}>
      <g fill="none" strokeWidth="1.8" strokeLinecap="round">
        {call === "keep" && <path d="M2.5 8.5 6 12.5 13.5 3.5" stroke={ink.ink} />}
        {call === "hold" && (
          <path d="M5 5.5C5 2.5 11 2.5 11 5.8 11 8.2 8 8 8 10.5M8 13.5v.1" stroke={ink.straw} />
        )}
        {call === "drop" && <path d="M3 8h10" stroke={ink.ink2} />}
        {call === "block" && <path d="M4 4l8 8M12 4l-8 8" stroke={ink.rose} />}
      </g>
    </svg>
  );
}
