import { giveSizes } from "../testing-layout";
import { fireEvent, render, screen } from "@testing-library/react";
import { useRef, useState } from "react";
import { SayingProvider } from "../data/saying";
import type { Column, Sort } from "./column";
import { Grid, type GridHandle } from "./Grid";

const words = ["ash", "beech", "cedar", "deal", "elm", "fir"];
const columns: Column[] = [
  {
    id: "word",
    head: "Word",
    label: "word",
    width: "1fr",
    sortable: true,
    cell: (row) => words[row],
  },
  {
    id: "size",
    head: "Size",
    label: "size",
    width: "60px",
    align: "end",
    sortable: true,
    cell: (row) => row,
  },
  {
    id: "plain",
    head: "Plain",
    label: "plain",
    width: "60px",
    cell: () => <button>inside</button>,
    leaves: [],
  },
];

type Props = { onEnter?: (id: number) => void; line?: number; rows?: number[] };

function Bench({ onEnter, line, rows = [0, 1, 2, 3, 4, 5] }: Props) {
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const [sort, setSort] = useState<Sort | null>(null);
  const handle = useRef<GridHandle>(null);
  return (
    <SayingProvider>
      <Grid
        label="Words"
        handle={handle}
        columns={columns}
        rows={rows}
        idOf={(row) => row + 100}
        active={active}
        onActive={setActive}
        selected={selected}
        onSelected={setSelected}
        sort={sort}
        onSort={setSort}
        onEnter={onEnter}
        look={(row) => ({ dim: row === 5, struck: row === 4 })}
        dividers={line === undefined ? [] : [{ id: "line", before: line, content: "the line" }]}
        empty="nothing here"
      />
      <button onClick={() => handle.current?.move(1)}>on</button>
      <output>{JSON.stringify({ active, selected: [...selected], sort })}</output>
    </SayingProvider>
  );
}

const state = () =>
  JSON.parse(screen.getByRole("status").textContent ?? "") as {
    active: number | null;
    selected: number[];
    sort: Sort | null;
  };
const grid = () => screen.getByRole("grid", { name: "Words" });
const press = (key: string, options = {}) => fireEvent.keyDown(grid(), { key, ...options });
const rowOf = (word: string) => screen.getByText(word).closest("[role=row]")!;

beforeAll(giveSizes);

it("tells its size, its rows' places, and shows every cell", () => {
  render(<Bench />);
  expect(grid().getAttribute("aria-rowcount")).toBe("7");
  expect(rowOf("cedar").getAttribute("aria-rowindex")).toBe("4");
  expect(screen.getAllByRole("gridcell")).toHaveLength(18);
});

it("moves by arrows, pages and ends, and never past them", () => {
  render(<Bench />);
  press("ArrowDown");
  expect(state().active).toBe(100);
  press("ArrowUp");
  expect(state().active).toBe(100);
  press("End");
  expect(state().active).toBe(105);
  press("PageDown");
  expect(state().active).toBe(105);
  press("Home");
  expect(state().active).toBe(100);
  fireEvent.click(screen.getByText("on"));
  expect(state().active).toBe(101);
  expect(grid().getAttribute("aria-activedescendant")).toBe("row-101");
});

it("extends a selection with Shift, toggles with x, takes all, lets go with Escape", () => {
  render(<Bench />);
  press("ArrowDown");
  press("ArrowDown", { shiftKey: true });
  press("ArrowDown", { shiftKey: true });
  expect(state().selected).toEqual([100, 101, 102]);
  press("x");
  expect(state().selected).toEqual([100, 101]);
  press("a", { ctrlKey: true });
  expect(state().selected).toHaveLength(6);
  press("Escape");
  expect(state().selected).toEqual([]);
});

it("is worked with the mouse alike", () => {
  render(<Bench />);
  fireEvent.click(rowOf("beech"));
  fireEvent.click(rowOf("deal"), { shiftKey: true });
  expect(state().selected).toEqual([101, 102, 103]);
  fireEvent.click(rowOf("cedar"), { ctrlKey: true });
  expect(state().selected).toEqual([101, 103]);
  fireEvent.click(rowOf("elm"));
  expect(state()).toMatchObject({ active: 104, selected: [] });
});

it("leaves clicks on what stands in a cell to it", () => {
  render(<Bench />);
  fireEvent.click(screen.getAllByText("inside")[2]!);
  expect(state().active).toBeNull();
});

it("sorts by a heading: words rising first, figures falling first, then the other way", () => {
  render(<Bench />);
  fireEvent.click(screen.getByText("Word"));
  expect(state().sort).toEqual({ by: "word", down: false });
  fireEvent.click(screen.getByText("Size"));
  expect(state().sort).toEqual({ by: "size", down: true });
  fireEvent.click(screen.getByText("Size"));
  expect(state().sort).toEqual({ by: "size", down: false });
  const heading = screen.getByText("Size").closest("[role=columnheader]")!;
  expect(heading.getAttribute("aria-sort")).toBe("ascending");
});

it("Enter asks for the active row", () => {
  const entered = vi.fn();
  render(<Bench onEnter={entered} />);
  press("Enter");
  expect(entered).not.toHaveBeenCalled();
  press("End");
  press("Enter");
  expect(entered).toHaveBeenCalledWith(105);
});

it("draws the line between rows, and rows on both sides keep their places", () => {
  render(<Bench line={2} />);
  expect(screen.getByText("the line")).toBeTruthy();
  expect(rowOf("cedar").getAttribute("aria-rowindex")).toBe("4");
  press("End");
  expect(state().active).toBe(105);
});

it("marks rows that are dim or struck, and says when there are none", () => {
  const { rerender } = render(<Bench />);
  expect(rowOf("fir").hasAttribute("data-dim")).toBe(true);
  expect(rowOf("elm").hasAttribute("data-struck")).toBe(true);
  rerender(<Bench rows={[]} />);
  expect(screen.getByText("nothing here")).toBeTruthy();
});

it("rows whose stamp is what it was are left as they are; the others are drawn anew", () => {
  const drawn: number[] = [];
  const grid = (said: string[]) => {
    const column: Column = {
      id: "said",
      head: "Said",
      label: "said",
      width: "1fr",
      cell: (row) => {
        drawn.push(row);
        return said[row];
      },
    };
    return (
      <Grid
        label="Words"
        columns={[column]}
        rows={[0, 1, 2]}
        idOf={(row) => row + 100}
        active={null}
        onActive={() => {}}
        selected={new Set()}
        onSelected={() => {}}
        stamp={(row) => said[row]!}
        empty="nothing here"
      />
    );
  };
  const { rerender } = render(grid(["ash", "beech", "cedar"]), { wrapper: SayingProvider });
  drawn.length = 0;
  rerender(grid(["ash", "birch", "cedar"]));
  expect(drawn).toEqual([1]);
  expect(rowOf("birch").textContent).toBe("birch");
});
