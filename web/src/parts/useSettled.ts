import { useEffect, useState } from "react";

/** A value once it has stood for a while: what follows from it is asked for once, at the end. */
export function useSettled<T>(value: T, milliseconds: number, first = value): T {
  const [settled, setSettled] = useState(first);
  useEffect(() => {
    const timer = window.setTimeout(() => setSettled(value), milliseconds);
    return () => window.clearTimeout(timer);
  }, [value, milliseconds]);
  return settled;
}
