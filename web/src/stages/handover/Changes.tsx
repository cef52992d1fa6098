import { usePlan } from "../../data/plan";
import { usePlanQuery } from "../../data/usePlanQuery";
import { NotYet } from "../../parts/NotYet";
import { ItemsAway } from "../../parts/TakeAway";
import { count, delta, money, number } from "../../parts/format";
import { ChangedRows, named, said, type Cell } from "./ChangedRows";
import * as S from "./HandOver.styles";

type Props = { since: number | null };

/** The rows that are not as they were sent, with what they were. */
export function Changes({ since }: Props) {
  const { summary } = usePlan();
  const query: Record<string, number> = since === null ? {} : { since };
  const found = usePlanQuery("/hand-over/changes", { query });
  const view = found.data;
  if (!view)
    return (
      <S.Shelf>
        <NotYet of={found}>Setting now against what was sent …</NotYet>
      </S.Shelf>
    );
  if (view.since === null)
    return <S.Shelf>Nothing was sent yet, so every row would be new.</S.Shelf>;
  const { figures } = view;
  return (
    <S.Shelf tabIndex={0} role="region" aria-label="Changed rows">
      <p>
        Since {new Date(view.since).toLocaleString()}:{" "}
        {view.changes.length === 0
          ? "nothing changed."
          : `${number(view.changes.length + view.more)} rows.`}{" "}
        {figures &&
          `Then ${count(figures.then.customers)} customers for ${money(figures.then.spend)} ${summary.brief.values.currency} were expected, now ${count(figures.now.customers)} for ${money(figures.now.spend)} (${delta((figures.now.customers ?? 0) - (figures.then.customers ?? 0), 2) || "no more"}).`}
        <ItemsAway
          label="Changed rows"
          items={view.changes}
          columns={{
            change: (c) => c.turn,
            sheet: (c) => c.sheet,
            row: named,
            was: (c) => cells(c.was),
            now: (c) => cells(Object.fromEntries(Object.keys(c.was).map((k) => [k, c.row[k]!]))),
            ref: (c) => c.ref,
          }}
        />
      </p>
      <ChangedRows changes={view.changes} />
      {view.more > 0 && <p>… and {number(view.more)} more, all of them in the file.</p>}
    </S.Shelf>
  );
}

const cells = (row: Record<string, Cell>): string =>
  Object.entries(row)
    .map(([name, value]) => `${name}: ${said(value)}`)
    .join("; ");
