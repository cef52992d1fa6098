import {
  createContext,
  useCallback,
  useContext,
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
    const at = ++count.current;
    setSaid({ text, wrong, at });
    window.setTimeout(() => setSaid((now) => (now?.at === at ? null : now)), wrong ? 9000 : 3500);
  }, []);
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
