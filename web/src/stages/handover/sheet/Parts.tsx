import { Checkbox, CheckboxGroup, Label } from "react-aria-components";
import type { Schemas } from "../../../data/client";
import { useStyle, type Style } from "./useStyle";

const parts: { id: Style["sections"][number]; name: string }[] = [
  { id: "promise", name: "what it costs and brings" },
  { id: "versions", name: "versions to choose from" },
  { id: "buy_now", name: "to buy now" },
  { id: "next_in_line", name: "next in line" },
  { id: "too_dear", name: "too dear today" },
  { id: "blocked", name: "blocked" },
  { id: "year", name: "month and year" },
  { id: "ads", name: "ads" },
  { id: "assumed", name: "what was assumed" },
  { id: "worked", name: "sums worked through" },
  { id: "steps", name: "what happens next" },
];
const figures: { id: Style["columns"][number]; name: string }[] = [
  { id: "group", name: "group" },
  { id: "searches", name: "searches" },
  { id: "bid", name: "bid" },
  { id: "cpc", name: "price of a click" },
  { id: "clicks", name: "clicks" },
  { id: "customers", name: "customers" },
  { id: "spend", name: "spend" },
];

const mostBeside = 3;

type Props = {
  others: readonly Schemas["VersionItem"][];
  beside: readonly number[];
  onBeside: (ids: number[]) => void;
};

/** Which parts stand in the sheet, which versions beside it, which figures of a keyword. */
export function Parts({ others, beside, onBeside }: Props) {
  const [style, put] = useStyle();
  return (
    <>
      <CheckboxGroup
        value={style.sections}
        onChange={(chosen) =>
          void put({
            sections: parts.flatMap((part) => (chosen.includes(part.id) ? [part.id] : [])),
          })
        }
      >
        <Label>Parts of the sheet</Label>
        {parts.map((part) => (
          <Checkbox key={part.id} value={part.id}>
            <span aria-hidden /> {part.name}
          </Checkbox>
        ))}
      </CheckboxGroup>
      {others.length > 0 && (
        <CheckboxGroup
          value={beside.map(String)}
          onChange={(chosen) => onBeside(chosen.map(Number).slice(0, mostBeside))}
        >
          <Label>Versions beside it</Label>
          {others.map((one) => (
            <Checkbox key={one.id} value={String(one.id)}>
              <span aria-hidden /> {one.label || "as first made"}
            </Checkbox>
          ))}
        </CheckboxGroup>
      )}
      <CheckboxGroup
        value={style.columns}
        onChange={(chosen) =>
          void put({
            columns: figures.flatMap((one) => (chosen.includes(one.id) ? [one.id] : [])),
          })
        }
      >
        <Label>Figures of a keyword</Label>
        {figures.map((one) => (
          <Checkbox key={one.id} value={one.id}>
            <span aria-hidden /> {one.name}
          </Checkbox>
        ))}
      </CheckboxGroup>
    </>
  );
}
