import { useMemo, useState } from "react";
import { ToggleButton } from "react-aria-components";
import { client, uploadOf, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { usePlanChange } from "../../../data/usePlanChange";
import { Button, MainButton } from "../../../parts/Button";
import type { Column } from "../../../parts/column";
import { Grid } from "../../../parts/Grid";
import { Small } from "../../../parts/Screen";
import { count, delta, money, number, plural } from "../../../parts/format";
import * as S from "../Gather.styles";
import { RefusedRows } from "../RefusedRows";
import { useReading } from "../useReading";
import { ChooseFile } from "./ChooseFile";
import { PastWindow } from "./PastWindow";

type Account = Schemas["AccountView"];
type What = Account["what"][number];

const whats: { id: What; name: string }[] = [
  { id: "start", name: "started" },
  { id: "raise", name: "raised" },
  { id: "cut", name: "cut" },
  { id: "stop", name: "stopped" },
  { id: "same", name: "as now" },
];

/** What is live now: where the plan starts, and what it changes of that. */
export function AccountSource() {
  const send = usePlanChange();
  const { busy, read, path } = useReading();
  const [brought, setBrought] = useState<Account | null>(null);
  const held = usePlanQuery("/past/account");
  const view = held.data ?? brought;
  const readFile = (file: File) =>
    read(
      file.name,
      () =>
        taken(
          client.POST("/api/plans/{plan_id}/past/account", {
            ...path,
            ...uploadOf(file),
          }),
        ),
      setBrought,
    );
  const sample = () =>
    void read(
      "the made-up account",
      () => taken(client.POST("/api/plans/{plan_id}/past/account/sample", path)),
      setBrought,
    );
  const start = () => void send("post", "/past/account/take", undefined);
  const lock = () => void send("post", "/past/account/bids", undefined);
  return (
    <S.Fill>
      <h2>The running account</h2>
      <S.Line>
        <ChooseFile
          name="Choose a file …"
          busy={busy !== null}
          onFile={(file) => void readFile(file)}
        />
        {view ? (
          <>
            <MainButton onPress={start}>
              {view.missing > 0
                ? `Start from its ${plural(view.live, "keyword")}`
                : "Keep all that runs"}
            </MainButton>
            <Button onPress={lock}>Set their bids by hand as they are</Button>
            <Small>
              {plural(view.negatives, "negative")}
              {view.campaigns.length > 0 && ` in ${view.campaigns.join(", ")}`}
              {view.missing > 0 && `; ${number(view.missing)} not in the sheet yet`}
            </Small>
          </>
        ) : (
          <>
            <Button isDisabled={busy !== null} onPress={sample}>
              A made-up account
            </Button>
            <Small>
              Columns: keyword; and match, campaign, group, bid, landing page, negative, clicks,
              cost, customers where it has them.
            </Small>
          </>
        )}
      </S.Line>
      {view && (
        <S.Line>
          <PastWindow kind="account" summary={view.summary} />
        </S.Line>
      )}
      {view && <Worth view={view} />}
      {brought && <RefusedRows rows={brought.refused} />}
      {view && <Table view={view} />}
    </S.Fill>
  );
}

function Worth({ view }: { view: Account }) {
  const { currency } = usePlan().summary.brief.values;
  const { now, plan } = view;
  return (
    <S.Line>
      <p>
        By this plan&rsquo;s own figures, what runs now would bring{" "}
        <b>{count(now.customers)} customers</b> a month for {money(now.spend)} {currency}; the plan{" "}
        <b>{count(plan.customers)}</b> for {money(plan.spend)}: customers{" "}
        {delta(plan.customers - now.customers, 1) || "the same"}, profit{" "}
        {delta(plan.profit - now.profit, 0) || "the same"} {currency}.
      </p>
    </S.Line>
  );
}

function Table({ view }: { view: Account }) {
  const { currency } = usePlan().summary.brief.values;
  const [what, setWhat] = useState<What>(
    () => whats.find((w) => view.what.includes(w.id))?.id ?? "same",
  );
  const [active, setActive] = useState<number | null>(null);
  const rows = useMemo(
    () => view.what.flatMap((one, row) => (one === what ? [row] : [])),
    [view, what],
  );
  const columns: Column[] = useMemo(() => columnsOf(view, currency), [view, currency]);
  return (
    <>
      <S.Parts
        aria-label="What the plan changes"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[what]}
        onSelectionChange={(keys) => setWhat([...keys][0] as What)}
      >
        {whats.map((w) => (
          <ToggleButton key={w.id} id={w.id}>
            <b>{number(view.what.filter((one) => one === w.id).length)}</b> {w.name}
          </ToggleButton>
        ))}
      </S.Parts>
      <Grid
        label="What the plan changes, by keyword"
        columns={columns}
        rows={rows}
        idOf={(row) => row}
        active={active}
        onActive={setActive}
        selected={new Set()}
        onSelected={() => undefined}
        empty="No keyword is of this kind."
      />
    </>
  );
}

function columnsOf(view: Account, currency: string): Column[] {
  const figures = [
    ["bid_now", `Bid now, ${currency}`, money, "bid_now"],
    ["bid_plan", "planned", money, "bid_plan"],
    ["spend_now", <>{currency} a&nbsp;month now</>, money, "bid_now"],
    ["spend_plan", "planned", money, "bid_plan"],
    ["customers_now", "Customers now", count, "bid_now"],
    ["customers_plan", "planned", count, "bid_plan"],
  ] as const;
  return [
    {
      id: "text",
      head: "Keyword",
      label: "keyword",
      width: "minmax(200px, 1fr)",
      cell: (r) => view.text[r],
    },
    { id: "match", head: "Match", label: "match", width: "72px", cell: (r) => view.match[r] },
    { id: "group", head: "Group", label: "group", width: "120px", cell: (r) => view.group[r] },
    ...figures.map(([id, head, said, runs]) => ({
      id,
      head,
      label: id.replace("_", " "),
      width: "96px",
      align: "end" as const,
      cell: (r: number) => (view[runs][r] == null ? "–" : said(view[id][r])),
    })),
  ];
}
