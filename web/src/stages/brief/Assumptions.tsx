import { useState } from "react";
import { usePlan } from "../../data/plan";
import { usePlanQuery } from "../../data/usePlanQuery";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { A_NUMBER, parsed } from "../../parts/format";
import * as S from "./Brief.styles";

/** Every default of the model, with its reason: changed in place, and put back. */
export function Assumptions() {
  const { summary, changeAssumption } = usePlan();
  const [open, setOpen] = useState(false);
  const rows = usePlanQuery("/assumptions", { enabled: open });
  const changed = Object.keys(summary.brief.assumptions).length;
  return (
    <S.Assumed>
      <TextButton aria-expanded={open} onPress={() => setOpen(!open)}>
        {open ? "put the assumptions away" : "every assumption of the model"}
      </TextButton>
      {changed > 0 && <S.Aside> {changed} changed in this plan</S.Aside>}
      {open && (
        <S.Table>
          <thead>
            <tr>
              <th scope="col">Assumption</th>
              <th scope="col">Value</th>
              <th scope="col">Unit</th>
              <th scope="col">Why</th>
            </tr>
          </thead>
          <tbody>
            {rows.data?.map((row) => (
              <tr key={row.name} data-changed={row.changed || undefined}>
                <th scope="row">{row.label}</th>
                <td>
                  <Blank
                    label={row.label}
                    value={String(Number(row.value.toPrecision(6)))}
                    assumed={!row.changed}
                    onCommit={(text) => {
                      const value = parsed(text);
                      return value === null ? A_NUMBER : changeAssumption(row.name, value);
                    }}
                  />
                  {row.changed && (
                    <TextButton
                      aria-label={`Put ${row.label} back to ${row.default}`}
                      onPress={() => void changeAssumption(row.name, null)}
                    >
                      back
                    </TextButton>
                  )}
                </td>
                <td>{row.unit}</td>
                <td>{row.why}</td>
              </tr>
            ))}
          </tbody>
        </S.Table>
      )}
    </S.Assumed>
  );
}
