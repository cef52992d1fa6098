import { useMemo, useState } from "react";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { MainButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { Grid } from "../../parts/Grid";
import type { Column } from "../../parts/column";
import { money, number, percent, plural } from "../../parts/format";
import { Evidence } from "./Evidence";
import * as S from "./Learn.styles";
import type { LearnKeyword, LearnView } from "./view";

type Which =
  "all" | "stop" | "raise" | "rule" | "testing" | "hardly" | "clicks" | "listed" | "rivals";
const none: ReadonlySet<number> = new Set();
const verdicts: Record<LearnKeyword["verdict"], string> = {
  stop: "stop",
  wait: "wait",
  raise: "raise",
  no_prior: "no prior",
};
const wanted: Record<Which, (keyword: LearnKeyword) => boolean> = {
  all: () => true,
  stop: (keyword) => keyword.verdict === "stop",
  raise: (keyword) => keyword.verdict === "raise",
  rule: (keyword) => keyword.rule_cuts && keyword.verdict !== "stop",
  testing: (keyword) => keyword.testing_pays,
  hardly: (keyword) => keyword.hardly !== null,
  clicks: (keyword) => keyword.click_rate_low,
  listed: (keyword) => keyword.listed_well,
  rivals: (keyword) => keyword.rivals_came.length + keyword.rivals_gone.length > 0,
};

/** Keywords by evidence: stop, wait, raise, beside what a rule of thumb would do. */
export function Keywords({ view }: { view: LearnView }) {
  const { summary } = usePlan();
  const send = usePlanChange();
  const [which, setWhich] = useState<Which>("all");
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(none);
  const { keywords } = view;
  const { currency } = summary.brief.values;
  const columns = useMemo(() => keywordColumns(view, currency), [view, currency]);
  const places = useMemo(() => new Map(keywords.map((one, at) => [one.id, at])), [keywords]);
  const rows = useMemo(
    () => keywords.flatMap((keyword, at) => (wanted[which](keyword) ? [at] : [])),
    [keywords, which],
  );
  const chosen = (selected.size > 0 ? [...selected] : active === null ? [] : [active]).filter(
    (id) => keywords[places.get(id) ?? -1]?.call === "keep",
  );
  const cut = keywords.filter((keyword) => keyword.rule_cuts);
  const good = cut.filter((keyword) => keyword.verdict !== "stop");
  return (
    <>
      <S.Line>
        <Choice
          label="Which keywords"
          inline
          value={which}
          options={[
            { id: "all", name: "all that ran" },
            { id: "stop", name: "to stop" },
            { id: "raise", name: "to raise" },
            { id: "rule", name: "cut by the rule of thumb alone" },
            { id: "testing", name: "worth testing" },
            { id: "hardly", name: "hardly shown" },
            { id: "clicks", name: "clicked too seldom" },
            { id: "listed", name: "listed well for nothing" },
            { id: "rivals", name: "rivals came or went" },
          ]}
          onChange={(next) => {
            setWhich(next);
            setSelected(none);
          }}
        />
        <MainButton
          isDisabled={chosen.length === 0}
          onPress={() => {
            setSelected(none);
            void send("post", "/learn/decide", { keywords: { ids: chosen } });
          }}
        >
          {chosen.length > 1 ? `Stop these ${chosen.length}` : "Stop it"}
        </MainButton>
        <small>
          The rule of thumb (10 clicks, none sold) would cut {plural(cut.length, "keyword")};
          evidence doesn’t stop {number(good.length)} of them.
        </small>
      </S.Line>
      <Grid
        label="Keywords by their results"
        columns={columns}
        rows={rows}
        idOf={(row) => keywords[row]!.id}
        active={active}
        onActive={setActive}
        selected={selected}
        onSelected={setSelected}
        empty="No keyword of this kind."
      />
    </>
  );
}

function keywordColumns(view: LearnView, currency: string): Column[] {
  const { keywords } = view;
  const figure = (
    id: string,
    head: string,
    of: (keyword: LearnKeyword) => number | null,
    shown: (value: number) => string,
  ): Column => ({
    ...{ id, head, label: head, width: "minmax(62px, 0.5fr)" },
    align: "end",
    cell: (row) => {
      const value = of(keywords[row]!);
      return value === null ? "–" : shown(value);
    },
    leaves: [{ head, value: (row) => of(keywords[row]!) }],
  });
  const rate = (value: number) => percent(value, 2);
  return [
    {
      ...{ id: "keyword", head: "keyword", label: "keyword", width: "minmax(190px, 1.7fr)" },
      cell: (row) => <S.Name data-call={keywords[row]!.call}>{keywords[row]!.keyword}</S.Name>,
      leaves: [
        { head: "keyword", value: (row) => keywords[row]!.keyword },
        { head: "match", value: (row) => keywords[row]!.match },
      ],
    },
    figure("spend", `spent, ${currency}`, (one) => one.spend, money),
    figure("clicks", "clicks", (one) => one.clicks, number),
    {
      ...figure(
        "clicked",
        "clicked",
        (one) => one.clicked,
        (value) => `× ${number(value, 2)}`,
      ),
      label: "clicks over those to be expected of the showings",
    },
    figure("customers", "customers", (one) => one.customers, number),
    ...(keywords.some((one) => one.enquiries !== null)
      ? [figure("enquiries", "enquiries", (one) => one.enquiries, number)]
      : []),
    figure("cpc", `a click, ${currency}`, (one) => one.cpc, money),
    figure("needed", "rate needed", (one) => one.needed_rate, rate),
    figure("rate", "rate, believed", (one) => one.rate, rate),
    {
      ...{ id: "missing", head: "misses the rule", label: "misses the rule", width: "178px" },
      cell: (row) => (
        <Evidence missing={keywords[row]!.missing} verdict={keywords[row]!.verdict} marks={view} />
      ),
      leaves: [{ head: "chance of missing the rule", value: (row) => keywords[row]!.missing }],
    },
    {
      ...{ id: "verdict", head: "evidence says", label: "evidence says" },
      width: "minmax(130px, 0.9fr)",
      cell: (row) => <Says keyword={keywords[row]!} />,
      leaves: [
        { head: "evidence says", value: (row) => verdicts[keywords[row]!.verdict] },
        { head: "clicks needed", value: (row) => keywords[row]!.clicks_needed },
      ],
    },
    ...(keywords.some(wanted.rivals)
      ? [
          {
            ...{ id: "rivals", head: "rivals", label: "rivals since the list before" },
            width: "minmax(120px, 0.9fr)",
            cell: (row: number) => rivalsSaid(keywords[row]!),
            leaves: [{ head: "rivals", value: (row: number) => rivalsSaid(keywords[row]!) }],
          },
        ]
      : []),
    figure("testing", `to know, ${currency} a month`, (one) => one.worth_testing, money),
  ];
}

/** Who came to pay for it and who is gone, between the two newest lists. */
const rivalsSaid = ({ rivals_came: came, rivals_gone: gone }: LearnKeyword): string =>
  [came.length > 0 && `+ ${came.join(", ")}`, gone.length > 0 && `− ${gone.join(", ")}`]
    .filter(Boolean)
    .join(" ");

const whys: Record<NonNullable<LearnKeyword["hardly"]>["why"], string> = {
  negative: "a negative stops it",
  money: "no money left for it",
  few_searches: "few search for it",
  bid: "its bid is low",
  unseen: "nothing says why",
};

function Says({ keyword }: { keyword: LearnKeyword }) {
  if (keyword.hardly && keyword.verdict === "wait")
    return <S.Faint>hardly shown: {whys[keyword.hardly.why]}</S.Faint>;
  if (keyword.click_rate_low && keyword.verdict === "wait")
    return <S.Faint>clicked too seldom: the ad, or what is searched</S.Faint>;
  if (keyword.listed_well && keyword.verdict === "wait")
    return <S.Faint>listed well for nothing: it may do without the ad</S.Faint>;
  if (keyword.verdict === "wait")
    return (
      <S.Faint>
        wait
        {keyword.clicks_needed !== null && `, ${number(Math.ceil(keyword.clicks_needed))} clicks`}
      </S.Faint>
    );
  return <S.Kind data-kind={keyword.verdict}>{verdicts[keyword.verdict]}</S.Kind>;
}
