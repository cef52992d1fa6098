import { useEffect, useState, type RefObject } from "react";

const before = 900;

/** How wide a part is, as it is now. */
export function useWidth(box: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(before);
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const watch = new ResizeObserver(() => setWidth(element.clientWidth));
    watch.observe(element);
    return () => watch.disconnect();
  }, [box]);
  return width;
}
