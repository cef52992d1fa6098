import type { Column } from "../../parts/column";
import { count, money, number, plural } from "../../parts/format";
import { roomFor } from "../../parts/roomFor";
import { Grip, Target, useDropped } from "../../parts/dragging";
import { leaf } from "../../parts/shownList";
import { usePlanChange } from "../../data/usePlanChange";
import * as S from "./Arrange.styles";
import type { Groups } from "./view";

const widest = 46;

type CellProps = { groups: Groups; row: number };

/** What a group's ads lack, in words. */
function AdsCell({ groups, row }: CellProps) {
  const [ads, wrong] = [groups.ads[row]!, groups.ads_wrong[row]!];
  if (groups.without_ad[row]) return <S.Wrong>no ad</S.Wrong>;
  if (ads === 0) return null;
  if (wrong > 0) return <S.Wrong>{`${plural(ads, "ad")}, ${number(wrong)} to mend`}</S.Wrong>;
  return plural(ads, "ad");
}

/** What a group's page says of its words. */
function PageCell({ groups, row }: CellProps) {
  if (groups.kept[row] === 0) return null;
  const said = groups.page_said[row];
  if (!groups.page[row]) return <S.Wrong>no page</S.Wrong>;
  if (said == null) return <S.Straw title={groups.page[row]}>not read</S.Straw>;
  const all = groups.words[row]!.length;
  const text = `${number(said)} of ${number(all)}`;
  const better = groups.better_page[row];
  if (said === all) return text;
  return <S.Straw title={better ? `${better} says more` : undefined}>{text}</S.Straw>;
}

type NameProps = CellProps & { words: string; chosen: ReadonlySet<number> };

/** A group's name: it is dragged by its grip, keywords are dropped on it. */
function NameCell({ groups, row, words, chosen }: NameProps) {
  const send = usePlanChange();
  const id = groups.id[row]!;
  const dropped = useDropped({
    keywords: (ids) => void send("post", "/arrange/move", { ids, group_id: id, group: "" }),
  });
  const ids = chosen.has(id) ? [...chosen] : [id];
  return (
    <Target {...dropped} title={`${groups.name[row]!}: ${words}`}>
      <Grip kind="groups" ids={ids} label={groups.name[row]!} />
      {groups.name[row]}{" "}
      {groups.locked[row] && <S.Soft title="left alone by structures">locked </S.Soft>}
      <S.Faint>{words}</S.Faint>
    </Target>
  );
}

/** The columns of the outline of groups. */
export function groupColumns(
  groups: Groups,
  spend: number,
  currency: string,
  chosen: ReadonlySet<number>,
): Column[] {
  const words = (row: number) => (groups.words[row] ?? []).map(({ word }) => word).join(" · ");
  const most = Math.max(...groups.spend.map((one) => one ?? 0), 1e-9);
  return [
    {
      id: "name",
      head: "Group",
      label: "group",
      width: "minmax(108px, 1.5fr)",
      sortable: true,
      leaves: [
        { head: "campaign", value: (row) => groups.campaign[row] },
        { head: "group", value: (row) => groups.name[row] },
        { head: "its words", value: words },
      ],
      cell: (row) => <NameCell groups={groups} row={row} words={words(row)} chosen={chosen} />,
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
      width: "76px",
      align: "end",
      sortable: true,
      leaves: [
        { head: "kept", value: (row) => groups.kept[row] },
        { head: "keywords", value: (row) => groups.keywords[row] },
      ],
      cell: (row) => `${number(groups.kept[row])} of ${number(groups.keywords[row])}`,
    },
    {
      id: "ads",
      head: "Ads",
      label: "ads",
      width: "minmax(94px, 0.9fr)",
      leaves: [
        { head: "ads", value: (row) => groups.ads[row] },
        { head: "ads to mend", value: (row) => groups.ads_wrong[row] },
      ],
      cell: (row) => <AdsCell groups={groups} row={row} />,
    },
    {
      id: "page",
      head: "Page says",
      label: "page says",
      width: "76px",
      leaves: [
        { head: "page", value: (row) => groups.page[row] },
        { head: "words said", value: (row) => groups.page_said[row] },
      ],
      cell: (row) => <PageCell groups={groups} row={row} />,
    },
    {
      id: "searches",
      head: "Searches",
      label: "searches a month",
      width: roomFor(64, groups.searches, number),
      align: "end",
      sortable: true,
      cell: (row) => number(groups.searches[row]),
    },
    {
      id: "customers",
      head: "Customers",
      label: "customers",
      width: roomFor(76, groups.customers, count),
      align: "end",
      sortable: true,
      cell: (row) => count(groups.customers[row]),
    },
    {
      id: "spend",
      head: `Spend, ${currency}`,
      label: "spend",
      width: roomFor(98, groups.spend, money),
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
