import { useEffect, useMemo, useRef, useState } from "react";
import { usePlan } from "../../data/plan";
import type { Column, Sort } from "../../parts/column";
import { Grid, type GridHandle } from "../../parts/Grid";
import { count, money, number } from "../../parts/format";
import type { ArrangeView } from "./view";
import { leaf } from "../../parts/shownList";
import * as S from "./Arrange.styles";
import { GroupDetail } from "./GroupDetail";

type Groups = ArrangeView["groups"];
type Props = { view: ArrangeView };

const widest = 70;

/** Groups as bundles: their words, size and part of the purse; beside them who is in one. */
export function Groups({ view }: Props) {
  const { groups } = view;
  const { summary } = usePlan();
  const [sort, setSort] = useState<Sort>({ by: "spend", down: true });
  const [picked, setPicked] = useState<number | null>(null);
  const grid = useRef<GridHandle>(null);
  const rows = useMemo(() => sorted(groups, sort), [groups, sort]);
  const columns = useMemo(
    () => columnsOf(groups, summary.purse.spend, summary.brief.values.currency),
    [groups, summary.purse.spend, summary.brief.values.currency],
  );
  useEffect(() => grid.current?.focus(), []);
  const first = rows[0];
  const active = picked !== null && groups.id.includes(picked) ? picked : null;
  const shown = active ?? (first === undefined ? null : groups.id[first]!);
  return (
    <S.Halves>
      <S.Half aria-label="Ad groups">
        <Grid
          label="Ad groups"
          handle={grid}
          columns={columns}
          rows={rows}
          idOf={(row) => groups.id[row]!}
          active={shown}
          onActive={setPicked}
          selected={none}
          onSelected={() => undefined}
          sort={sort}
          onSort={setSort}
          look={(row) => ({ dim: groups.kept[row] === 0 })}
          empty="No groups yet. Keywords bring the group their file names, or arrange them by a ready structure (b)."
        />
      </S.Half>
      <S.Half aria-label="The group">
        {shown !== null && (
          <GroupDetail key={shown} groups={groups} at={groups.id.indexOf(shown)} />
        )}
      </S.Half>
    </S.Halves>
  );
}

const none: ReadonlySet<number> = new Set();

function sorted(groups: Groups, { by, down }: Sort): number[] {
  const value = (row: number): string | number => {
    const column =
      groups[by as "name" | "campaign" | "keywords" | "searches" | "spend" | "customers"];
    return column[row] ?? -1;
  };
  const compare = (a: number, b: number) => {
    const [one, other] = [value(a), value(b)];
    const order = typeof one === "string" ? one.localeCompare(String(other)) : one - Number(other);
    return (down ? -order : order) || a - b;
  };
  return groups.id.map((_, row) => row).sort(compare);
}

function columnsOf(groups: Groups, spend: number, currency: string): Column[] {
  const words = (row: number) => (groups.words[row] ?? []).map(({ word }) => word).join(" · ");
  const most = Math.max(...groups.spend.map((one) => one ?? 0), 1e-9);
  return [
    {
      id: "name",
      head: "Group",
      label: "group",
      width: "minmax(140px, 1.2fr)",
      sortable: true,
      leaves: leaf("group", (row) => groups.name[row]),
      cell: (row) => <span title={groups.name[row]}>{groups.name[row]}</span>,
    },
    ...(new Set(groups.campaign).size > 1 ? [campaignColumn(groups)] : []),
    {
      id: "words",
      head: "Its words",
      label: "its words",
      width: "minmax(110px, 0.9fr)",
      leaves: leaf("its words", words),
      cell: (row) => <S.Soft>{words(row)}</S.Soft>,
    },
    {
      id: "keywords",
      head: (
        <>
          Kept, of
          <br />
          keywords
        </>
      ),
      label: "keywords",
      width: "84px",
      align: "end",
      sortable: true,
      leaves: [
        { head: "kept", value: (row) => groups.kept[row] },
        { head: "keywords", value: (row) => groups.keywords[row] },
      ],
      cell: (row) => `${number(groups.kept[row])} of ${number(groups.keywords[row])}`,
    },
    {
      id: "searches",
      head: "Searches",
      label: "searches a month",
      width: "70px",
      align: "end",
      sortable: true,
      cell: (row) => number(groups.searches[row]),
    },
    {
      id: "customers",
      head: "Customers",
      label: "customers",
      width: "76px",
      align: "end",
      sortable: true,
      cell: (row) => count(groups.customers[row]),
    },
    {
      id: "spend",
      head: `Spend, ${currency}`,
      label: "spend",
      width: "136px",
      align: "end",
      sortable: true,
      leaves: leaf(`spend, ${currency}`, (row) => groups.spend[row]),
      cell: (row) => {
        const own = groups.spend[row] ?? 0;
        const share = spend > 0 ? `${number((100 * own) / spend)} % of the purse` : "";
        return (
          <S.Share title={share}>
            <i style={{ width: (widest * own) / most }} />
            {money(own)}
          </S.Share>
        );
      },
    },
  ];
}

const campaignColumn = (groups: Groups): Column => ({
  id: "campaign",
  head: "Campaign",
  label: "campaign",
  width: "minmax(84px, 0.7fr)",
  sortable: true,
  leaves: leaf("campaign", (row) => groups.campaign[row]),
  cell: (row) => <S.Soft title={groups.campaign[row]}>{groups.campaign[row]}</S.Soft>,
});
