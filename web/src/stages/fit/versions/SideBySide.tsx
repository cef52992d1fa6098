import { useQueryClient } from "@tanstack/react-query";
import { client, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { useSaying } from "../../../data/saying";
import { useAsking } from "../../../app/asked";
import { Traced } from "../../../parts/Traced";
import { TextButton } from "../../../parts/Button";
import { Blank } from "../../../parts/Blank";
import { count, delta, money, number, percent } from "../../../parts/format";
import { useDrawn } from "../../../parts/useDrawn";
import * as S from "./Versions.styles";
import { nameOf, useSwitching, type Version } from "./version";

type Side = Schemas["VersionSide"];
type Odds = Schemas["OddsView"];
type Figure = keyof Schemas["StandingValues"];
type Row = {
  figure: Figure;
  label: string;
  said: (value: number | null) => string;
  digits: number;
  ranged?: boolean;
};

const whole = (value: number | null) => number(value);
const rows: Row[] = [
  { figure: "purse", label: "purse a month", said: money, digits: 2 },
  { figure: "spend", label: "spend a month", said: money, digits: 2, ranged: true },
  { figure: "clicks", label: "clicks a month", said: whole, digits: 0, ranged: true },
  { figure: "customers", label: "customers a month", said: count, digits: 1, ranged: true },
  { figure: "cost_per_customer", label: "a customer costs", said: money, digits: 2, ranged: true },
  { figure: "profit", label: "profit a month", said: whole, digits: 0, ranged: true },
  { figure: "running", label: "keywords run", said: whole, digits: 0 },
  { figure: "kept", label: "keywords kept", said: whole, digits: 0 },
  { figure: "year_spend", label: "spend in twelve months", said: whole, digits: 0 },
  { figure: "year_customers", label: "customers in twelve months", said: whole, digits: 0 },
  { figure: "year_profit", label: "profit in twelve months", said: whole, digits: 0 },
];

type Props = { family: Version[]; sides: Side[]; revisions: string };

/** A column a version; what is as in the plan that is open stands back. */
export function SideBySide({ family, sides, revisions }: Props) {
  const { summary } = usePlan();
  const { ask } = useAsking();
  const odds = useOdds(sides, revisions);
  if (sides.length === 0) return <S.Quiet>Setting the versions side by side …</S.Quiet>;
  const first = sides[0]!;
  const drawn = new Map(odds.found?.sides.map((side) => [side.plan_id, side]));
  return (
    <S.Table>
      <thead>
        <tr>
          <td>
            <S.Quiet>{summary.brief.values.currency}</S.Quiet>
          </td>
          {sides.map((side) => (
            <th key={side.plan_id} scope="col">
              <Head
                version={family.find((one) => one.id === side.plan_id)!}
                open={side === first}
              />
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.figure}>
            <th scope="row">{row.label}</th>
            {sides.map((side) => {
              const value = side.standing[row.figure];
              const was = first.standing[row.figure];
              const range = drawn.get(side.plan_id)?.figures[row.figure];
              return (
                <td key={side.plan_id} data-same={(side !== first && value === was) || undefined}>
                  <Traced
                    aria-label={`${row.label}: ${row.said(value)}`}
                    onPress={() =>
                      ask({
                        kind: "standing",
                        plan: side.plan_id,
                        revision: side.revision,
                        figure: row.figure,
                      })
                    }
                  >
                    <b>{row.said(value)}</b>
                  </Traced>
                  {side !== first && value !== null && was !== null && (
                    <em>{delta(value - was, row.digits)}</em>
                  )}
                  {row.ranged && (
                    <small data-late={!range || undefined}>
                      {range ? between(range, row.digits) : "…"}
                    </small>
                  )}
                </td>
              );
            })}
          </tr>
        ))}
        {sides.length > 1 && (
          <tr>
            <th scope="row">
              more customers than {nameOf(family.find((v) => v.id === first.plan_id)!)}
            </th>
            {sides.map((side) => (
              <td key={side.plan_id}>
                {side !== first && (
                  <Traced
                    onPress={() =>
                      ask({
                        kind: "apart",
                        first: first.plan_id,
                        second: side.plan_id,
                        revisions,
                      })
                    }
                  >
                    <Beats odds={odds.found} first={first} second={side} />
                  </Traced>
                )}
              </td>
            ))}
          </tr>
        )}
      </tbody>
      <caption>
        {odds.progress ?? (
          <>
            <Others family={family} first={first} odds={odds.found} />
            Small: 8 months in 10 lie between. All are drawn {number(odds.found?.draws)} times with
            the same luck, so what differs is never chance.
          </>
        )}
      </caption>
    </S.Table>
  );
}

type HeadProps = { version: Version; open: boolean };

/** A version's name and reason, and what can be done with it. */
function Head({ version, open }: HeadProps) {
  const go = useSwitching();
  const send = useOf(version.id);
  return (
    <S.Head data-open={open || undefined}>
      <Blank
        label={`Name of ${nameOf(version)}`}
        value={version.label}
        placeholder={nameOf(version)}
        onCommit={(label) => send("name", { label })}
      />
      <Blank
        label={`Reason for ${nameOf(version)}`}
        value={version.reason}
        placeholder="why it was made"
        onCommit={(reason) => send("name", { reason })}
      />
      <span>
        {open ? <i>open</i> : <TextButton onPress={() => go(version.id)}>open</TextButton>}
        {version.is_plan ? (
          <b>the plan</b>
        ) : (
          <TextButton onPress={() => void send("choose")}>make it the plan</TextButton>
        )}
      </span>
    </S.Head>
  );
}

/** Sends a change of one version, which need not be the one that is open. */
function useOf(version: number) {
  const { id, change } = usePlan();
  const queries = useQueryClient();
  const { say, complain } = useSaying();
  return async (what: "name" | "choose", body: { label?: string; reason?: string } = {}) => {
    const params = { path: { plan_id: version } };
    const request = () =>
      what === "choose"
        ? taken<Schemas["ChangeAnswer"]>(client.POST("/api/plans/{plan_id}/choose", { params }))
        : taken<Schemas["ChangeAnswer"]>(
            client.PATCH("/api/plans/{plan_id}/version", { params, body }),
          );
    let took = false;
    if (version === id) took = await change(request);
    else
      try {
        say((await request()).did);
        // what this window keeps of the other is of an older revision now
        await queries.invalidateQueries({ queryKey: ["plan", version] });
        took = true;
      } catch (error) {
        complain(error);
      }
    await queries.invalidateQueries({ queryKey: ["/versions"] });
    await queries.invalidateQueries({ queryKey: ["plans"] });
    return took;
  };
}

type BeatsProps = { odds: Odds | null; first: Side; second: Side };

/** In how many of the same months one brings more customers than the other. */
function Beats({ odds, first, second }: BeatsProps) {
  const pair = odds?.pairs.find(
    (one) => one.first === first.plan_id && one.second === second.plan_id,
  );
  if (!pair) return <small data-late>…</small>;
  return (
    <>
      <b>in {percent(pair.more, 0)} of months</b>
      <small>
        as many in {percent(pair.same, 0)}, fewer in {percent(pair.fewer, 0)}
      </small>
    </>
  );
}

type OthersProps = { family: Version[]; first: Side; odds: Odds | null };

/** The same for every two that stand beside the open one. */
function Others({ family, first, odds }: OthersProps) {
  const name = (plan: number) => nameOf(family.find((one) => one.id === plan)!);
  const pairs = odds?.pairs.filter((pair) => pair.first !== first.plan_id) ?? [];
  return pairs.map((pair) => (
    <p key={`${pair.first} ${pair.second}`}>
      {name(pair.second)} brings more customers than {name(pair.first)} in {percent(pair.more, 0)}{" "}
      of months, as many in {percent(pair.same, 0)}, fewer in {percent(pair.fewer, 0)}.
    </p>
  ));
}

function between(range: Schemas["RangeValues"], digits: number): string {
  if (range.low === null) return "nobody buys in most months";
  const high = range.high === null ? "∞" : number(range.high, digits === 1 ? 0 : digits);
  return `${number(range.low, digits === 1 ? 0 : digits)} to ${high}`;
}

/** The draws of all that stand side by side, with their progress while they are made. */
function useOdds(sides: Side[], revisions: string) {
  const { id } = usePlan();
  const others = sides.slice(1).map((side) => side.plan_id);
  return useDrawn<Odds>(
    ["/compare/odds", id, others.join(" "), revisions],
    (header) =>
      taken<Odds | null>(
        client.GET("/api/plans/{plan_id}/compare/odds", {
          params: { path: { plan_id: id }, query: { with: others } },
          ...header,
        }),
      ),
    sides.length > 0,
  );
}
