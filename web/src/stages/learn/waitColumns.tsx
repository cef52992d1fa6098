import type { Column } from "../../parts/column";
import { money } from "../../parts/format";
import * as S from "./Learn.styles";
import type { Waiting } from "./view";

const kinds: Record<Waiting["kind"], string> = {
  block: "block",
  own_keyword: "own keyword",
  spot: "own spot",
  stop: "stop",
  raise: "raise",
  hardly: "hardly shown",
  close: "close the month",
  refused: "refused",
  review: "look",
};

/** The columns of the queue. */
export function waitColumns(waiting: readonly Waiting[], currency: string): Column[] {
  return [
    {
      ...{ id: "kind", head: "what", label: "what", width: "124px" },
      cell: (row) => <S.Kind data-kind={waiting[row]!.kind}>{kinds[waiting[row]!.kind]}</S.Kind>,
      leaves: [{ head: "what", value: (row) => kinds[waiting[row]!.kind] }],
    },
    {
      ...{ id: "name", head: "of", label: "of", width: "minmax(200px, 1.4fr)" },
      cell: (row) => waiting[row]!.name,
    },
    {
      ...{ id: "says", head: "because", label: "because", width: "minmax(260px, 2fr)" },
      cell: (row) => waiting[row]!.says,
    },
    {
      ...{ id: "money", head: `spent, ${currency}`, label: "spent", width: "110px" },
      align: "end",
      cell: (row) => (waiting[row]!.money > 0 ? money(waiting[row]!.money) : ""),
      leaves: [{ head: `spent, ${currency}`, value: (row) => waiting[row]!.money }],
    },
  ];
}
