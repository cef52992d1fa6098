import { useId, useState, type CSSProperties } from "react";
import styled from "styled-components";
import { useSaying } from "../data/saying";
import { ink, thin } from "../look/tokens";
import { quoted } from "./format";

type Props = {
  label: string;
  /** What stands there now, as it reads. */
  value: string;
  /**
   * Takes what was typed. False where it was refused and said why, else what was expected:
   * either way the text stays to be mended.
   */
  onCommit: (text: string) => Promise<boolean | string> | boolean | string;
  /** Nobody has entered this yet. */
  assumed?: boolean;
  placeholder?: string;
  /** At least this many characters wide. */
  least?: number;
  focused?: boolean;
  onLeave?: () => void;
  /** Told what is typed before it is taken; null once it is taken or put back. */
  onDraft?: (text: string | null) => void;
};

/** A blank in a sentence: reads as a word, is a field. Enter takes, Escape puts back. */
export function Blank(props: Props) {
  const {
    label,
    value,
    onCommit,
    assumed,
    placeholder = "",
    least = 2,
    focused,
    onLeave,
    onDraft,
  } = props;
  const { complain } = useSaying();
  const [typed, setTyped] = useState<string | null>(null);
  const [refused, setRefused] = useState(false);
  const draft = (text: string | null) => {
    setTyped(text);
    onDraft?.(text);
  };
  const hint = useId();
  const shown = typed ?? value;
  const commit = async () => {
    if (typed === null || typed === value) {
      draft(null);
      return;
    }
    const took = await onCommit(typed);
    setRefused(took !== true);
    if (took === true) draft(null);
    else if (took !== false) complain(`${label}: expected ${took}, got ${quoted(typed)}.`);
  };
  return (
    <>
      <Field
        aria-label={label}
        aria-invalid={refused || undefined}
        aria-describedby={assumed ? hint : undefined}
        data-assumed={assumed || undefined}
        value={shown}
        placeholder={placeholder}
        title={assumed ? "assumed: nobody has entered this yet" : undefined}
        style={{ "--chars": Math.max((shown || placeholder).length, least) } as CSSProperties}
        spellCheck={false}
        autoComplete="off"
        // eslint-disable-next-line jsx-a11y/no-autofocus -- only where the planner just asked to edit
        autoFocus={focused}
        onFocus={(event) => event.currentTarget.select()}
        onChange={(event) => draft(event.currentTarget.value)}
        onBlur={() => void commit().then(onLeave)}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === "Enter") event.currentTarget.blur();
          if (event.key === "Escape") {
            draft(null);
            setRefused(false);
            onLeave?.();
          }
        }}
      />
      {assumed && (
        <span id={hint} hidden>
          assumed
        </span>
      )}
    </>
  );
}

const Field = styled.input`
  border: 0;
  border-bottom: 1.5px solid ${ink.petal};
  background: ${thin(ink.petalWash, 53)};
  color: ${ink.petalDeep};
  font: inherit;
  font-weight: 600;
  text-align: center;
  padding: 0 4px;
  border-radius: 0;
  /* of a line of figures no share is known: there a long text stays under the screen's */
  max-width: min(100%, 60vw);
  min-width: 2.2ch;
  field-sizing: content;
  @supports not (field-sizing: content) {
    width: calc(var(--chars) * 1ch + 1.2ch);
  }
  &[data-assumed] {
    border-bottom: 1.5px dashed ${ink.straw};
    color: ${ink.straw};
    background: none;
  }
  &[aria-invalid] {
    border-bottom: 2px solid ${ink.rose};
    color: ${ink.rose};
  }
  &::placeholder {
    color: ${ink.ink3};
    font-weight: 400;
  }
`;
