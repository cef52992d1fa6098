import { usePlan } from "../../../data/plan";
import { useQuery } from "@tanstack/react-query";
import { client, taken, type Schemas } from "../../../data/client";
import { TextButton } from "../../../parts/Button";
import { NotYet } from "../../../parts/NotYet";
import { FigureTable } from "../../../parts/Pictured";
import { ItemsAway } from "../../../parts/TakeAway";
import { count, money, number, percent } from "../../../parts/format";
import * as S from "./Year.styles";
import { clock, weekNames, weekdayShort } from "./months";

type MonthView = Schemas["MonthView"];
type Props = { month: number; name: string; onClose: () => void };

/** One month by its days: money by weekday and hour, and when a campaign's day runs dry. */
export function Days({ month, name, onClose }: Props) {
  const { id, summary } = usePlan();
  const { currency } = summary.brief.values;
  const query = useQuery({
    queryKey: ["/year/months", id, summary.revision, month],
    queryFn: () =>
      taken<MonthView>(
        client.GET("/api/plans/{plan_id}/year/months/{month}", {
          params: { path: { plan_id: id, month } },
        }),
      ),
  });
  const view = query.data;
  if (!view)
    return (
      <p>
        <NotYet of={query}>Opening {name} …</NotYet>
      </p>
    );
  const gain = view.lost - view.lost_shared;
  const dates = view.dates.map((day, at) => ({ day, spend: view.spend[at]! }));
  return (
    <S.Month aria-label={`${name} by its days`}>
      <S.Titled>
        <h2>
          {name}: {money(view.total)} of {money(view.purse)} {currency} in {number(dates.length)}{" "}
          days
        </h2>
        <ItemsAway
          label={`${name} by its days`}
          items={dates}
          columns={{ day: ({ day }) => day, [`expected, ${currency}`]: ({ spend }) => spend }}
        />
        <TextButton onPress={onClose}>close</TextButton>
      </S.Titled>
      <S.Two>
        <div>
          <Week view={view} currency={currency} />
          <ItemsAway
            label="Money by weekday and hour"
            items={weekNames.map((day, at) => ({ day, at }))}
            columns={Object.fromEntries([
              ["weekday", ({ day }: Weekday) => day],
              ...[...Array(24).keys()].map((hour) => [
                `${hour}:00`,
                ({ at }: Weekday) => view.week[at]![hour]!,
              ]),
            ])}
          />
          <p>
            A day spends {money(Math.min(...view.spend))} to {money(Math.max(...view.spend))}:{" "}
            {dates
              .slice(0, 7)
              .map(({ day, spend }) => `${weekdayShort(day)} ${number(spend, 2)}`)
              .join(", ")}
            .
          </p>
        </div>
        <div>
          <FigureTable
            label="Daily budgets"
            items={view.campaigns}
            columns={{
              campaign: (one) => one.campaign,
              [`a day, ${currency}`]: (one) => money(one.daily),
              "gone before evening": (one) => percent(one.gone_early, 0),
              "gone by midnight": (one) => percent(one.gone, 0),
              "at about": (one) => (one.hour === null ? "" : clock(one.hour)),
              "clicks lost": (one) => count(one.lost),
            }}
          />
          <p>
            All daily budgets together come to {money(view.budgets)} of {money(view.purse)}{" "}
            {currency}: whole cents, never above the purse. Busy days lose {count(view.lost)} clicks
            a month
            {gain > 0 && view.campaigns.length > 1
              ? `; one shared budget would save ${count(gain)} of them`
              : ""}
            .
          </p>
        </div>
      </S.Two>
    </S.Month>
  );
}

type Weekday = { day: string; at: number };

type WeekProps = { view: MonthView; currency: string };

/** The month's money by weekday and hour: the more, the deeper. */
function Week({ view, currency }: WeekProps) {
  const most = Math.max(1e-9, ...view.week.flat());
  const hours = [...Array(24).keys()];
  return (
    <S.Week aria-label="Money by weekday and hour">
      <tbody>
        {view.week.map((day, at) => (
          <tr key={weekNames[at]}>
            <th scope="row">{weekNames[at]}</th>
            {hours.map((hour) => (
              <td
                key={hour}
                title={`${weekNames[at]} ${hour}:00: ${money(day[hour])} ${currency} in the month`}
              >
                <i style={{ opacity: day[hour]! / most }} />
              </td>
            ))}
            <td data-sum>{money(day.reduce((sum, one) => sum + one, 0))}</td>
          </tr>
        ))}
        <tr aria-hidden>
          <td />
          {hours.map((hour) => (
            <td key={hour}>{hour % 6 === 0 ? hour : ""}</td>
          ))}
          <td data-sum>{currency}</td>
        </tr>
      </tbody>
    </S.Week>
  );
}
