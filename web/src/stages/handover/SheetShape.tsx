import { useQueryClient } from "@tanstack/react-query";
import { Checkbox } from "react-aria-components";
import type { Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import * as S from "./HandOver.styles";

type View = Schemas["HandOverView"];
type Sheet = NonNullable<Schemas["HandOverRequest"]["sheets"]>[number];
type Column = NonNullable<View["shapes"][Sheet]>[number];
type Props = { sheet: Sheet; view: View };

/** Which columns a sheet has for this platform, in which order, called what; how files are named. */
export function SheetShape({ sheet, view }: Props) {
  const { id } = usePlan();
  const queries = useQueryClient();
  const send = usePlanChange();
  const columns: readonly Column[] = view.shapes[sheet] ?? [];
  const tell = async (body: Schemas["SheetShape"]) => {
    const took = await send("post", "/hand-over/shape", body);
    await queries.invalidateQueries({ queryKey: ["/hand-over", id] });
    return took;
  };
  const put = (column: string, some: Omit<Schemas["UploadColumnChange"], "column">) =>
    tell({ sheet, columns: [{ column, ...some }] });
  return (
    <S.Columns aria-label={`Columns of ${sheet}`}>
      <p>
        Files are named{" "}
        <Blank
          label="How files are named"
          value={view.file_name}
          onCommit={(rule) => tell({ file_name: rule })}
        />{" "}
        <small>
          of {view.file_name_words.map((word) => `‹${word}›`).join(" ")}; kept with the rules of
          this platform
        </small>
      </p>
      {columns.length === 0 ? (
        <p>This sheet has no rows yet, so its columns are not known.</p>
      ) : (
        <ol>
          {columns.map((one, at) => (
            <li key={one.column}>
              <Checkbox
                isSelected={one.sent ?? true}
                onChange={(sent) => void put(one.column, { sent })}
                aria-label={`send ${one.column}`}
              >
                <span aria-hidden /> {one.column}
              </Checkbox>{" "}
              as{" "}
              <Blank
                label={`Heading of ${one.column}`}
                value={one.heading}
                onCommit={(heading) => put(one.column, { heading })}
              />
              <TextButton
                aria-label={`${one.column} one place forward`}
                isDisabled={at === 0}
                onPress={() => void put(one.column, { place: at - 1 })}
              >
                ←
              </TextButton>
              <TextButton
                aria-label={`${one.column} one place back`}
                isDisabled={at === columns.length - 1}
                onPress={() => void put(one.column, { place: at + 1 })}
              >
                →
              </TextButton>
            </li>
          ))}
        </ol>
      )}
      <TextButton onPress={() => void tell({ sheet, as_it_comes: true })}>
        columns as they come
      </TextButton>
    </S.Columns>
  );
}
