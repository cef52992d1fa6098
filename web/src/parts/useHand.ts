import { useRef, type KeyboardEvent, type MouseEvent, type RefObject } from "react";
import { rowHeight } from "../look/tokens";
import { span, withRange, withToggled } from "./selection";

type Sheet = {
  box: RefObject<HTMLElement | null>;
  rows: readonly number[];
  idOf: (row: number) => number;
  active: number | null;
  /** Where the active row stands; below 0 where it isn't shown. */
  activeAt: number;
  onActive: (id: number) => void;
  selected: ReadonlySet<number>;
  onSelected: (ids: ReadonlySet<number>) => void;
  onEnter?: (id: number) => void;
  onCopy: () => void;
  /** Brings a row into sight. */
  show: (at: number) => void;
};

/** How a sheet is worked: keys and clicks that move, select, extend, copy and open. */
export function useHand(sheet: Sheet) {
  const { box, rows, idOf, active, activeAt, onActive, selected, onSelected } = sheet;
  const { onEnter, onCopy, show } = sheet;
  const anchor = useRef<number | null>(null);
  const go = (at: number, extend: boolean) => {
    const to = Math.max(0, Math.min(rows.length - 1, at));
    const row = rows[to];
    if (row === undefined) return;
    if (extend) {
      anchor.current ??= activeAt < 0 ? to : activeAt;
      onSelected(withRange(selected, span(rows, idOf, anchor.current, to)));
    } else anchor.current = null;
    onActive(idOf(row));
    show(to);
  };

  /** What a key does; whether it did. */
  const acts: Record<string, () => boolean> = {
    copy: () => done(onCopy()),
    all: () => done(onSelected(new Set(rows.map(idOf)))),
    Escape: () => selected.size > 0 && done(onSelected(new Set())),
    x: () => active !== null && done(onSelected(withToggled(selected, active))),
    Enter: () => active !== null && onEnter !== undefined && done(onEnter(active)),
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.target !== box.current) return;
    const page = Math.max(1, Math.floor((box.current?.clientHeight ?? 300) / rowHeight) - 2);
    const to = placeByKey(event.key, activeAt, page, rows.length);
    const act = to === null ? acts[actOf(event)] : () => done(go(to, event.shiftKey));
    if (!act?.()) return;
    event.preventDefault();
    event.stopPropagation();
  };

  const onClick = (event: MouseEvent, at: number, id: number) => {
    if ((event.target as HTMLElement).closest("button, input, a")) return;
    if (event.shiftKey) go(at, true);
    else if (event.ctrlKey || event.metaKey) {
      onSelected(withToggled(selected, id));
      onActive(id);
    } else {
      if (selected.size > 0) onSelected(new Set());
      go(at, false);
    }
    box.current?.focus({ preventScroll: true });
  };
  return { go, onKeyDown, onClick };
}

/** Something was done. */
const done = (...what: unknown[]) => what.length >= 0;

/** The place a key leads to; null for one that leads nowhere. */
function placeByKey(key: string, from: number, page: number, length: number): number | null {
  const moves: Record<string, number> = {
    ArrowDown: from + 1,
    ArrowUp: from < 0 ? 0 : from - 1,
    PageDown: from + page,
    PageUp: from - page,
    Home: 0,
    End: length - 1,
  };
  return moves[key] ?? null;
}

/** The name of what a key asks for: with Control, a letter is a command. */
function actOf({ key, ctrlKey, metaKey }: KeyboardEvent): string {
  if (!ctrlKey && !metaKey) return key;
  return { c: "copy", a: "all" }[key] ?? "";
}
