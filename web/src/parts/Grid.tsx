import { type VirtualItem, useVirtualizer, type Range } from "@tanstack/react-virtual";
import {
  memo,
  useCallback,
  useEffect,
  useImperativeHandle,
  useMemo,
  useRef,
  type MouseEvent,
  type ReactNode,
  type Ref,
} from "react";
import { useSaying } from "../data/saying";
import { rowHeight } from "../look/tokens";
import * as S from "./Grid.styles";
import { plural } from "./format";
import { place } from "./selection";
import { TakeAway, copyList } from "./TakeAway";
import { shownList } from "./shownList";
import { useHand } from "./useHand";
import { visibleRange } from "./visibleRange";
import type { Column, Sort } from "./column";

export type Divider = { id: string; before: number; content: ReactNode };

/** What another part may ask of a grid. */
export type GridHandle = { focus: () => void; move: (by: number) => void; showDivider: () => void };

type Props = {
  label: string;
  columns: Column[];
  /** Row numbers in the order they are shown. */
  rows: readonly number[];
  idOf: (row: number) => number;
  active: number | null;
  onActive: (id: number) => void;
  selected: ReadonlySet<number>;
  onSelected: (ids: ReadonlySet<number>) => void;
  sort?: Sort | null;
  onSort?: (sort: Sort) => void;
  look?: (row: number) => S.RowLook;
  /**
   * Everything that a row's cells show, as one text: rows whose text is what it was are left
   * as they are, though the columns were made anew. Only for cells that hold no handlers.
   */
  stamp?: (row: number) => string;
  /** Lines across the sheet, each before the row at its place, in that order. */
  dividers?: readonly Divider[];
  onEnter?: (id: number) => void;
  empty: ReactNode;
  handle?: Ref<GridHandle>;
};

const dividerHeight = 28;
const none: readonly Divider[] = [];

/** A long sheet: virtualised, worked from the keyboard, rows selected one or a thousand at a time. */
export function Grid(props: Props) {
  const { label, columns, rows, idOf, active, onActive, selected, onSelected, look, empty } = props;
  const { sort, onSort, dividers = none, onEnter, handle, stamp } = props;
  const box = useRef<HTMLDivElement>(null);
  const copy = useCopy(columns, idOf);
  const places = usePlaces(dividers, rows.length);
  const { dividerAt, itemAt, cuts } = places;
  const activeAt = place(rows, idOf, active);
  const range = useCallback(
    (visible: Range) => visibleRange(visible, activeAt < 0 ? null : itemAt(activeAt)),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- itemAt follows from the cuts
    [activeAt, cuts],
  );
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualiser's functions are not memoised on purpose
  const virtual = useVirtualizer({
    count: rows.length + dividers.length,
    getScrollElement: () => box.current,
    estimateSize: (item) => (dividerAt(item) ? dividerHeight : rowHeight),
    overscan: 12,
    rangeExtractor: range,
  });
  useEffect(() => virtual.measure(), [virtual, cuts]);

  const { go, onKeyDown, onClick } = useHand({
    ...{ box, rows, idOf, active, activeAt, onActive, selected, onSelected, onEnter },
    onCopy: () => copy(rows, selected),
    show: (at) => virtual.scrollToIndex(itemAt(at), { align: "auto" }),
  });
  useImperativeHandle(handle, () => ({
    focus: () => box.current?.focus({ preventScroll: true }),
    move: (by) => go(activeAt < 0 ? 0 : activeAt + by, false),
    showDivider: () => {
      const first = dividers[0];
      if (first) virtual.scrollToIndex(Math.min(first.before, rows.length), { align: "center" });
    },
  }));

  const latestClick = useRef(onClick);
  useEffect(() => {
    latestClick.current = onClick;
  });
  const clicked = useCallback(
    (event: MouseEvent, at: number, id: number) => latestClick.current(event, at, id),
    [],
  );
  const template = [...columns.map((column) => column.width), `${S.endWidth}px`].join(" ");
  // where the window is narrower than this, head and rows scroll aside together
  const minWidth = leastWidth(columns);
  return (
    <S.Box
      ref={box}
      role="grid"
      tabIndex={0}
      aria-label={label}
      aria-rowcount={rows.length + 1}
      aria-colcount={columns.length}
      aria-multiselectable
      aria-activedescendant={activeAt >= 0 ? `row-${active}` : undefined}
      onKeyDown={onKeyDown}
    >
      <S.Head role="row" aria-rowindex={1} style={{ gridTemplateColumns: template, minWidth }}>
        {columns.map((column) => (
          <Heading key={column.id} column={column} sort={sort} onSort={onSort} />
        ))}
        <S.End role="columnheader">
          <S.Unseen>take the list away</S.Unseen>
          <TakeAway label={label} columns={columns} rows={rows} />
        </S.End>
      </S.Head>
      <S.Body role="rowgroup" style={{ height: virtual.getTotalSize(), minWidth }}>
        <Lines
          items={virtual.getVirtualItems()}
          places={places}
          rows={rows}
          idOf={idOf}
          columns={columns}
          template={template}
          look={look}
          stamp={stamp}
          active={active}
          selected={selected}
          onClick={clicked}
        />
      </S.Body>
      {rows.length === 0 && <S.Empty>{empty}</S.Empty>}
    </S.Box>
  );
}

/** Copies the selected rows, or all where none is. */
function useCopy(columns: Column[], idOf: Props["idOf"]) {
  const { say, complain } = useSaying();
  return (rows: readonly number[], selected: ReadonlySet<number>) => {
    const some = rows.filter((row) => selected.has(idOf(row)));
    const taken = some.length > 0 ? some : rows;
    copyList(shownList(columns, taken)).then(
      () => say(`copied ${plural(taken.length, "row")}`),
      complain,
    );
  };
}

/** The least width of all columns together, px: the first figure of each track. */
const leastWidth = (columns: readonly Column[]): number =>
  columns.reduce(
    (sum, { width }) => sum + (parseFloat(width.replace(/^[^0-9]*/, "")) || 0),
    S.endWidth,
  );

/** Where rows and dividers lie among the items of the list. */
function usePlaces(dividers: readonly Divider[], length: number) {
  const cuts = dividers.map((divider) => Math.min(divider.before, length)).join();
  return useMemo(() => {
    const before = cuts === "" ? [] : cuts.split(",").map(Number);
    const items = before.map((cut, at) => cut + at);
    return {
      cuts,
      dividerAt: (item: number) => dividers[items.indexOf(item)],
      rowAt: (item: number) => item - items.filter((at) => at < item).length,
      itemAt: (row: number) => row + before.filter((cut) => cut <= row).length,
    };
  }, [cuts, dividers]);
}

type LinesProps = Pick<
  Props,
  "rows" | "idOf" | "columns" | "look" | "stamp" | "active" | "selected"
> & {
  items: readonly VirtualItem[];
  places: ReturnType<typeof usePlaces>;
  template: string;
  onClick: (event: MouseEvent, at: number, id: number) => void;
};

/** The rows and dividers in sight. */
function Lines(props: LinesProps) {
  const { items, places, rows, idOf, columns, template, look, stamp, active, selected, onClick } =
    props;
  const { dividerAt, rowAt } = places;
  return items.map((item) => {
    const style = { transform: `translateY(${item.start}px)`, height: item.size };
    const divider = dividerAt(item.index);
    if (divider)
      return (
        <S.Divider key={divider.id} role="row" style={style}>
          <div role="gridcell">{divider.content}</div>
        </S.Divider>
      );
    const at = rowAt(item.index);
    const row = rows[at];
    if (row === undefined) return null;
    const id = idOf(row);
    return (
      <Row
        key={id}
        row={row}
        id={id}
        at={at}
        start={item.start}
        columns={columns}
        template={template}
        stamp={stamp?.(row)}
        active={id === active}
        selected={selected.has(id)}
        dim={look?.(row).dim}
        struck={look?.(row).struck}
        onClick={onClick}
      />
    );
  });
}

type RowProps = S.RowLook & {
  row: number;
  id: number;
  at: number;
  start: number;
  columns: Column[];
  template: string;
  stamp?: string;
  active: boolean;
  selected: boolean;
  onClick: (event: MouseEvent, at: number, id: number) => void;
};

/** Drawn again only when something of its own changed: scrolling draws new rows alone. */
const Row = memo(function Row(props: RowProps) {
  const { row, id, at, start, columns, template, active, selected, dim, struck, onClick } = props;
  return (
    <S.Row
      id={`row-${id}`}
      role="row"
      aria-rowindex={at + 2}
      aria-selected={selected}
      data-active={active || undefined}
      data-dim={dim || undefined}
      data-struck={struck || undefined}
      style={{ transform: `translateY(${start}px)`, gridTemplateColumns: template }}
      onClick={(event) => onClick(event, at, id)}
    >
      {columns.map((column) => (
        <S.Cell key={column.id} role="gridcell" $align={column.align}>
          {column.cell(row)}
        </S.Cell>
      ))}
    </S.Row>
  );
}, looksTheSame);

function looksTheSame(before: RowProps, after: RowProps): boolean {
  const names = Object.keys(after) as (keyof RowProps)[];
  return names.every(
    (name) =>
      Object.is(before[name], after[name]) || (name === "columns" && after.stamp !== undefined),
  );
}

type HeadingProps = { column: Column; sort?: Sort | null; onSort?: (sort: Sort) => void };

function Heading({ column, sort, onSort }: HeadingProps) {
  const second = sort?.then?.by === column.id;
  const mine = sort?.by === column.id ? sort : second ? sort.then! : null;
  const state = mine && !second ? (mine.down ? "descending" : "ascending") : "none";
  if (!column.sortable || !onSort)
    return (
      <S.HeadCell role="columnheader" $align={column.align}>
        {column.head}
      </S.HeadCell>
    );
  const order = { by: column.id, down: mine ? !mine.down : column.align === "end" };
  return (
    <S.HeadCell role="columnheader" aria-sort={state} $align={column.align}>
      <S.SortButton
        type="button"
        title={`Sort by ${column.label}; with Shift, as the second order`}
        onClick={(event) =>
          onSort(
            event.shiftKey && sort && sort.by !== column.id
              ? { by: sort.by, down: sort.down, then: order }
              : order,
          )
        }
      >
        {column.head}
        {mine && <span aria-hidden>{(mine.down ? " ↓" : " ↑") + (second ? "₂" : "")}</span>}
      </S.SortButton>
    </S.HeadCell>
  );
}
