import { useQuery } from "@tanstack/react-query";
import { client, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { NotYet } from "../../parts/NotYet";
import { FigureTable } from "../../parts/Pictured";
import * as S from "./HandOver.styles";

type SheetView = Schemas["SheetView"];
type Props = { sheet: SheetView["name"] };

/** A sheet beside that of the keywords, as it would leave. */
export function OtherSheet({ sheet }: Props) {
  const { id, summary } = usePlan();
  const found = useQuery({
    queryKey: ["/hand-over/sheets", id, summary.revision, sheet],
    queryFn: () =>
      taken<SheetView>(
        client.GET("/api/plans/{plan_id}/hand-over/sheets/{sheet}", {
          params: { path: { plan_id: id, sheet } },
        }),
      ),
  });
  const view = found.data;
  if (!view)
    return (
      <S.Shelf>
        <NotYet of={found}>Making the sheet …</NotYet>
      </S.Shelf>
    );
  const rows = (view.columns[0] ?? []).map((_, row) => row);
  if (rows.length === 0) return <S.Shelf>There are no {sheet} in this plan.</S.Shelf>;
  return (
    <S.Shelf>
      <FigureTable
        label={sheet}
        items={rows}
        columns={Object.fromEntries(
          view.heads.map((head, at) => [
            head,
            (row: number) => {
              const cell = view.columns[at]![row]!;
              return typeof cell === "boolean" ? String(cell) : cell;
            },
          ]),
        )}
      />
    </S.Shelf>
  );
}
