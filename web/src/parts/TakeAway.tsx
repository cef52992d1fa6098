import { Download } from "lucide-react";
import { Button, Menu, MenuItem, MenuTrigger, Popover } from "react-aria-components";
import styled from "styled-components";
import { client, taken } from "../data/client";
import { useSaying } from "../data/saying";
import { ink } from "../look/tokens";
import type { Column, Plain } from "./column";
import { plural } from "./format";
import { listed, shownList, tableText, type Shown } from "./shownList";

type Props = { label: string; columns: readonly Column[]; rows: readonly number[] };

/** The way out of a grid: copied as a table, or saved as a file, as it is shown. */
export const TakeAway = ({ label, columns, rows }: Props) => (
  <ListAway keys label={label} count={rows.length} shown={() => shownList(columns, rows)} />
);

type ListProps = {
  label: string;
  count: number;
  shown: () => Shown;
  /** Ctrl C copies it where it stands. */ keys?: boolean;
};

/** The way out of any list. */
export function ListAway({ label, count, shown, keys }: ListProps) {
  const { say, complain } = useSaying();
  const leave = async (way: string) => {
    try {
      if (way === "copy") await copyList(shown());
      else await saveList(label, shown(), way as "csv" | "xlsx");
      say(`${way === "copy" ? "copied" : "saved"} ${plural(count, "row")}`);
    } catch (error) {
      complain(error);
    }
  };
  return (
    <MenuTrigger>
      <Opener aria-label={`Take away: ${label}`} isDisabled={count === 0}>
        <Download size={14} aria-hidden />
      </Opener>
      <Pop placement="bottom end">
        <Ways aria-label="Take this list away" onAction={(way) => void leave(String(way))}>
          <Way id="copy">Copy as a table {keys && <kbd>Ctrl C</kbd>}</Way>
          <Way id="csv">Save as CSV</Way>
          <Way id="xlsx">Save as XLSX</Way>
        </Ways>
      </Pop>
    </MenuTrigger>
  );
}

type ItemsProps<T> = {
  label: string;
  items: readonly T[] | undefined;
  /** What leaves of each, by its head. */
  columns: Record<string, (item: T) => Plain>;
};

/** The way out of a list that is no grid. */
export const ItemsAway = <T,>({ label, items = [], columns }: ItemsProps<T>) => (
  <ListAway label={label} count={items.length} shown={() => listed(items, columns)} />
);

/** Put a list on the clipboard, as text that a spreadsheet takes for rows and columns. */
export const copyList = (shown: Shown): Promise<void> =>
  navigator.clipboard.writeText(tableText(shown));

async function saveList(label: string, shown: Shown, kind: "csv" | "xlsx") {
  const body = { name: label, kind, ...shown };
  const file = await taken<Blob>(
    client.POST("/api/lists", { body, parseAs: "blob" }) as Promise<{
      data?: Blob;
      response: Response;
    }>,
  );
  const link = document.createElement("a");
  link.href = URL.createObjectURL(file);
  link.download = `${label.replace(/[^\p{L}\p{N}._-]+/gu, "-")}.${kind}`;
  link.click();
  window.setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

const Opener = styled(Button)`
  border: 0;
  background: none;
  padding: 3px 5px;
  color: ${ink.ink2};
  cursor: pointer;
  svg {
    display: block;
  }
  &[data-hovered] {
    color: ${ink.petalDeep};
  }
  &[data-disabled] {
    visibility: hidden;
  }
`;

const Pop = styled(Popover)`
  background: ${ink.paper};
  border: 1px solid ${ink.ink3};
  border-radius: 2px;
`;

const Ways = styled(Menu)`
  padding: 4px;
  outline: none;
` as typeof Menu;

const Way = styled(MenuItem)`
  display: flex;
  justify-content: space-between;
  gap: 18px;
  padding: 5px 10px;
  cursor: pointer;
  outline: none;
  &[data-focused] {
    background: ${ink.petalWash};
  }
`;
