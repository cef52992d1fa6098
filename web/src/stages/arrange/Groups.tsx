import { useEffect, useMemo, useRef, useState } from "react";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import type { Column, Sort } from "../../parts/column";
import { Grid, type GridHandle } from "../../parts/Grid";
import { count, money, number, plural } from "../../parts/format";
import type { ArrangeView } from "./view";
import { leaf } from "../../parts/shownList";
import { useActions } from "../../app/actions";
import { TextButton } from "../../parts/Button";
import { usePlanChange } from "../../data/usePlanChange";
import { Grip, Target, useDropped } from "../../parts/dragging";
import { ChosenGroups } from "./ChosenGroups";
import { CampaignDetail } from "./CampaignDetail";
import { limitsInWords, termsInWords } from "./campaignWords";
import * as S from "./Arrange.styles";
import { GroupDetail, type Leaf } from "./GroupDetail";

type Groups = ArrangeView["groups"];
type Campaign = ArrangeView["campaigns"][number];
type Props = {
  view: ArrangeView;
  /** How often the planner asked to write an ad since they stand where they do. */
  writing: number;
  onWriting: (writing: number) => void;
  /** Groups selected, by id. */
  chosen: ReadonlySet<number>;
  onChosen: (ids: ReadonlySet<number>) => void;
  /** Asks for a ready structure of the selected groups' keywords. */
  onArrange: () => void;
};

const widest = 46;

/** An outline: campaigns with their groups under them; beside it the group, or its campaign. */
export function Groups(props: Props) {
  const { view, writing, onWriting, chosen, onChosen, onArrange } = props;
  const { groups, campaigns } = view;
  const { summary } = usePlan();
  const { say } = useSaying();
  const currency = summary.brief.values.currency;
  const [sort, setSort] = useState<Sort>({ by: "spend", down: true });
  const [picked, setPicked] = useState<number | null>(null);
  const [campaign, setCampaign] = useState<number | null>(null);
  const [leaf, setLeaf] = useState<Leaf>("keywords");
  const grid = useRef<GridHandle>(null);
  const outline = useMemo(() => outlined(view, sort), [view, sort]);
  const columns = useMemo(
    () => columnsOf(groups, summary.purse.spend, currency, chosen),
    [groups, summary.purse.spend, currency, chosen],
  );
  useEffect(() => grid.current?.focus(), []);
  const first = outline.rows[0];
  const active = picked !== null && groups.id.includes(picked) ? picked : null;
  const shown = active ?? (first === undefined ? null : groups.id[first]!);
  const at = shown === null ? -1 : groups.id.indexOf(shown);
  const own = campaigns.find(({ id }) => id === (campaign ?? NaN));
  const openCampaign = () => setCampaign(groups.campaign_id[at] ?? campaigns[0]?.id ?? null);
  const pick = (id: number) => {
    setPicked(id);
    setCampaign(null);
    onWriting(0);
  };
  const write = () => {
    setCampaign(null);
    setLeaf("ads");
    onWriting(writing + 1);
  };
  const next = () => {
    const bare = outline.rows.find((row) => groups.without_ad[row] && row !== at);
    if (bare === undefined) return say("Every other group with kept keywords has an ad.");
    setPicked(groups.id[bare]!);
    write();
  };
  useActions([
    { name: "Write another ad of this group", keys: ["a"], run: write },
    { name: "Next group without an ad", keys: ["u"], run: next },
    { name: "The group’s keywords", keys: [], run: () => setLeaf("keywords") },
    { name: "The group’s page", keys: [], run: () => setLeaf("page") },
    { name: "The things the group shows", keys: [], run: () => setLeaf("things") },
    { name: "The group’s negatives", keys: [], run: () => setLeaf("negatives") },
    { name: "Open the campaign of this group", keys: ["p"], run: openCampaign },
    { name: "Back to the group", keys: ["Escape"], run: () => setCampaign(null) },
  ]);
  return (
    <S.Halves>
      <S.Half aria-label="Ad groups">
        {chosen.size > 0 && (
          <ChosenGroups view={view} ids={[...chosen]} onChosen={onChosen} onArrange={onArrange} />
        )}
        <Grid
          label="Ad groups"
          handle={grid}
          columns={columns}
          rows={outline.rows}
          idOf={(row) => groups.id[row]!}
          active={shown}
          onActive={pick}
          selected={chosen}
          onSelected={onChosen}
          sort={sort}
          onSort={setSort}
          dividers={outline.heads.map(({ one, before }) => ({
            id: `campaign-${one.id}`,
            before,
            content: (
              <CampaignHead campaign={one} currency={currency} onOpen={() => setCampaign(one.id)} />
            ),
          }))}
          look={(row) => ({ dim: groups.kept[row] === 0 })}
          empty="No groups yet. Keywords bring the group their file names, or arrange them by a ready structure (b)."
        />
      </S.Half>
      <S.Half aria-label={own ? "The campaign" : "The group"}>
        {own ? (
          <CampaignDetail
            key={own.id}
            campaign={own}
            view={view}
            onBack={() => setCampaign(null)}
          />
        ) : (
          at >= 0 && (
            <GroupDetail
              key={shown}
              view={view}
              at={at}
              leaf={leaf}
              onLeaf={setLeaf}
              writing={writing}
              onWrite={write}
            />
          )
        )}
      </S.Half>
    </S.Halves>
  );
}

type HeadProps = { campaign: Campaign; currency: string; onOpen: () => void };

/** A campaign as a line of the outline: its money, its limits, its hours and area. */
function CampaignHead({ campaign, currency, onOpen }: HeadProps) {
  const send = usePlanChange();
  const dropped = useDropped({
    groups: (ids) => void send("post", "/arrange/groups/move", { ids, campaign_id: campaign.id }),
  });
  return (
    <S.CampaignLine {...dropped}>
      <TextButton aria-label={`Open the campaign ${campaign.name}`} onPress={onOpen}>
        {campaign.name}
      </TextButton>
      <b>
        {money(campaign.spend)} {currency}
      </b>
      <span>{limitsInWords(campaign)}</span>
      <span>{termsInWords(campaign)}</span>
    </S.CampaignLine>
  );
}

/** Campaigns by what they spend or by name, each with its groups in the order asked for. */
function outlined({ groups, campaigns }: ArrangeView, sort: Sort) {
  const within = sorted(groups, sort);
  const order = [...campaigns].sort((a, b) => b.spend - a.spend || a.name.localeCompare(b.name));
  const rows: number[] = [];
  const heads = order.map((one) => {
    const before = rows.length;
    rows.push(...within.filter((row) => groups.campaign_id[row] === one.id));
    return { one, before };
  });
  return { rows, heads };
}

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

function columnsOf(
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
      width: "64px",
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
      width: "98px",
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
