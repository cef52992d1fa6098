import { useEffect, useRef, useState } from "react";

/** A value that keeps moving, taken at most every so often, and always at its end. */
export function usePaced<T>(value: T, milliseconds: number): T {
  const [paced, setPaced] = useState(value);
  const taken = useRef(0);
  useEffect(() => {
    const wait = Math.max(0, taken.current + milliseconds - Date.now());
    const timer = setTimeout(() => {
      taken.current = Date.now();
      setPaced(value);
    }, wait);
    return () => clearTimeout(timer);
  }, [value, milliseconds]);
  return paced;
}
