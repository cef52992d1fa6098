import { useMemo, useRef, useState } from "react";
import { useActions } from "../../../app/actions";
import type { Schemas } from "../../../data/client";
import { TextButton } from "../../../parts/Button";
import type { Column } from "../../../parts/column";
import { Grid, type GridHandle } from "../../../parts/Grid";
import { count, number, plural } from "../../../parts/format";
import { leaf } from "../../../parts/shownList";
import { Views } from "../../../parts/Views";
import * as A from "../Arrange.styles";
import { AllPages } from "./AllPages";
import { GroupPage } from "./GroupPage";
import { ReadSheet } from "./ReadSheet";
import { WorthWriting } from "./WorthWriting";

type View = Schemas["PagesView"];
type Props = { pages: View };
type Beside = "page" | "all" | "worth";

/** Where each group's ads lead and what is said there; beside it the page, all pages, and what no page says. */
export function Pages({ pages }: Props) {
  const { groups } = pages;
  const [active, setActive] = useState<number | null>(null);
  const [beside, setBeside] = useState<Beside>("page");
  const [reading, setReading] = useState<"group" | "any" | null>(null);
  const grid = useRef<GridHandle>(null);
  const order = useMemo(() => ordered(groups), [groups]);
  const columns = useMemo(() => columnsOf(groups), [groups]);
  const shown = groups.find(({ group_id }) => group_id === active) ?? groups[order[0] ?? -1];
  useActions([
    { name: "Read pages of the site", keys: ["r"], run: () => setReading("any") },
    { name: "Go to the groups", keys: ["o"], run: () => grid.current?.focus() },
  ]);
  const views = [
    { id: "page", name: "Its page" },
    { id: "all", name: `All pages ${number(pages.pages.length)}` },
    { id: "worth", name: `Worth writing ${number(pages.worth_writing.length)}` },
  ] as const;
  return (
    <A.Halves>
      <A.Half aria-label="Groups and their pages">
        <A.Bar>
          <TextButton onPress={() => setReading("any")}>read pages …</TextButton> <kbd>r</kbd>{" "}
          {plural(pages.pages.length, "page")} known
        </A.Bar>
        <Grid
          label="Groups and their pages"
          handle={grid}
          columns={columns}
          rows={order}
          idOf={(at) => groups[at]!.group_id}
          active={shown?.group_id ?? null}
          onActive={(id) => {
            setActive(id);
            setBeside("page");
          }}
          selected={none}
          onSelected={() => undefined}
          empty="No group holds kept keywords yet: keep some in Sift, then say here where their ads lead."
        />
      </A.Half>
      <A.Half aria-label="The page">
        <A.About>
          <h2>{beside === "page" ? (shown?.group ?? "Pages") : "Pages of the site"}</h2>
          <Views label="What is shown of pages" views={views} view={beside} onView={setBeside} />
        </A.About>
        {beside === "page" && shown && (
          <GroupPage
            key={shown.group_id}
            pages={pages}
            group={shown.group_id}
            onRead={() => setReading("group")}
          />
        )}
        {beside === "all" && <AllPages pages={pages} />}
        {beside === "worth" && <WorthWriting pages={pages} />}
      </A.Half>
      <ReadSheet
        open={reading !== null}
        onOpen={(open) => setReading(open ? "any" : null)}
        group={
          reading === "group" && shown
            ? { id: shown.group_id, label: shown.group, address: shown.address }
            : undefined
        }
      />
    </A.Halves>
  );
}

const none: ReadonlySet<number> = new Set();

/** What is missing first: no page, then words unsaid, then by the customers behind them. */
function ordered(groups: View["groups"]): number[] {
  const lack = (at: number) => {
    const one = groups[at]!;
    if (one.address === "") return 3;
    if (one.page_id === null) return 2;
    return one.said < one.words.length ? 1 : 0;
  };
  return groups
    .map((_, at) => at)
    .sort((a, b) => lack(b) - lack(a) || groups[b]!.customers - groups[a]!.customers || a - b);
}

function columnsOf(groups: View["groups"]): Column[] {
  const missing = (at: number) =>
    groups[at]!.words.filter(({ where }) => where.length === 0)
      .map(({ word }) => word)
      .join(", ");
  return [
    {
      id: "group",
      head: "Group",
      label: "group",
      width: "minmax(110px, 1fr)",
      leaves: leaf("group", (at) => groups[at]!.group),
      cell: (at) => <span title={groups[at]!.group}>{groups[at]!.group}</span>,
    },
    {
      id: "page",
      head: "Leads to",
      label: "leads to",
      width: "minmax(110px, 1.2fr)",
      leaves: leaf("leads to", (at) => groups[at]!.address),
      cell: (at) =>
        groups[at]!.address ? (
          <span title={groups[at]!.address}>{groups[at]!.address}</span>
        ) : (
          <A.Wrong>no page</A.Wrong>
        ),
    },
    {
      id: "says",
      head: "Says",
      label: "says",
      width: "96px",
      leaves: leaf("says", (at) => saysInWords(groups[at]!)),
      cell: (at) => {
        const one = groups[at]!;
        const all = one.said === one.words.length;
        return all ? saysInWords(one) : <A.Straw>{saysInWords(one)}</A.Straw>;
      },
    },
    {
      id: "missing",
      head: "Words it doesn’t say",
      label: "words it doesn’t say",
      width: "minmax(120px, 1.4fr)",
      leaves: leaf("words it doesn’t say", (at) => (groups[at]!.page_id ? missing(at) : "")),
      cell: (at) => groups[at]!.page_id !== null && <span title={missing(at)}>{missing(at)}</span>,
    },
    {
      id: "customers",
      head: "Customers",
      label: "customers",
      width: "76px",
      align: "end",
      leaves: leaf("customers", (at) => groups[at]!.customers),
      cell: (at) => count(groups[at]!.customers),
    },
  ];
}

function saysInWords({ page_id, address, said, words }: View["groups"][number]): string {
  if (address === "") return "";
  if (page_id === null) return "not read";
  return `${number(said)} of ${number(words.length)}`;
}
