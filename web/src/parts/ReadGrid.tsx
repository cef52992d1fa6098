import { useMemo, useState, type ReactNode } from "react";
import { Grid } from "./Grid";
import type { Column } from "./column";

type Props = { label: string; columns: Column[]; count: number; empty: ReactNode };

/** A long list that is only read: its rows in their order, numbered from 0. */
export function ReadGrid({ label, columns, count, empty }: Props) {
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const rows = useMemo(() => Array.from({ length: count }, (_, at) => at), [count]);
  return (
    <Grid
      label={label}
      columns={columns}
      rows={rows}
      idOf={(row) => row}
      active={active}
      onActive={setActive}
      selected={selected}
      onSelected={setSelected}
      empty={empty}
    />
  );
}
