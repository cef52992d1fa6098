import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from "react";

type Said = { text: string; wrong: boolean; at: number } | null;
type Saying = { say: (text: string) => void; complain: (error: unknown) => void };

// two, so that those who speak aren't drawn anew with every word
const Context = createContext<Saying | null>(null);
const Line = createContext<Said>(null);

/** One line at a time about what was just done, or why it was not: as it now stands. */
export const useSaid = (): Said => useContext(Line);

/** The means to put such a line there. */
export function useSaying(): Saying {
  const saying = useContext(Context);
  if (!saying) throw new Error("useSaying outside of SayingProvider");
  return saying;
}

type Props = { children: ReactNode };

export function SayingProvider({ children }: Props) {
  const [said, setSaid] = useState<Said>(null);
  const count = useRef(0);
  const put = useCallback((text: string, wrong: boolean) => {
    setSaid({ text, wrong, at: ++count.current });
  }, []);
  useEffect(() => {
    if (!said) return;
    // the line goes after a while, unless another stands there or all of this is gone by then
    const going = window.setTimeout(() => setSaid(null), said.wrong ? 9000 : 3500);
    return () => window.clearTimeout(going);
  }, [said]);
  const saying = useMemo(
    () => ({
      say: (text: string) => put(text, false),
      complain: (error: unknown) =>
        put(error instanceof Error ? error.message : String(error), true),
    }),
    [put],
  );
  return (
    <Context.Provider value={saying}>
      <Line.Provider value={said}>{children}</Line.Provider>
    </Context.Provider>
  );
}
