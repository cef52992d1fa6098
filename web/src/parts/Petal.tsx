import { ink } from "../look/tokens";

const words: Record<string, string> = {
  in_reach: "in reach",
  stretch: "stretch",
  beyond: "beyond",
  unknown: "standing unknown",
};

type Props = { standing: string };

/** The standing of a keyword: full, half or outline. */
export function Petal({ standing }: Props) {
  const shape = "M7 1c4.2 4.6 4.2 9.4 0 14C2.8 10.4 2.8 5.6 7 1Z";
  const hue = standing === "stretch" ? ink.straw : standing === "in_reach" ? ink.petal : ink.ink3;
  return (
    <svg width="14" height="16" viewBox="0 0 14 16" role="img" aria-label={words[standing]}>
      <path
        d={shape}
        fill={standing === "in_reach" ? hue : "none"}
        stroke={hue}
        strokeWidth="1.2"
        strokeDasharray={standing === "unknown" ? "2 2" : undefined}
      />
      {standing === "stretch" && (
        <path d="M3.9 8h6.2c0 2.5-1 4.8-3.1 7C4.9 12.8 3.9 10.5 3.9 8Z" fill={hue} />
      )}
    </svg>
  );
}

export const standingWord = (standing: string): string => words[standing] ?? standing;
