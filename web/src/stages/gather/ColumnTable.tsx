import { Choice } from "../../parts/Choice";
import type { Tray } from "./tray";
import * as T from "./Tray.styles";
import { fieldName } from "./fieldName";

type Props = {
  tray: Tray;
  onAssign: (columns: Record<string, number>, firstRow: number) => void;
};

/** What each column holds, guessed, shown on the first rows, and corrected here. */
export function ColumnTable({ tray, onAssign }: Props) {
  const width = Math.max(tray.headings.length, ...tray.sample.map((row) => row.length));
  const held = new Map(Object.entries(tray.columns).map(([field, at]) => [at, field]));
  const options = [
    { id: "", name: "leave out" },
    ...tray.fields.map((field) => ({
      id: field,
      name: fieldName(field),
    })),
  ];
  const assign = (at: number, field: string) => {
    const rest = Object.entries(tray.columns).filter(
      ([name, place]) => place !== at && name !== field,
    );
    onAssign(Object.fromEntries(field ? [...rest, [field, at]] : rest), tray.first_row);
  };
  return (
    <T.Columns role="region" aria-label="Columns of the file" tabIndex={0}>
      <table>
        <thead>
          <tr>
            {Array.from({ length: width }, (_, at) => (
              <th key={at} scope="col">
                <Choice
                  label={`Column ${at + 1}${tray.headings[at] ? `, ${tray.headings[at]}` : ""}`}
                  value={held.get(at) ?? ""}
                  options={options}
                  onChange={(field) => assign(at, field)}
                />
                <small>{tray.headings[at] || `column ${at + 1}`}</small>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {tray.sample.slice(0, 4).map((row, number) => (
            <tr key={number}>
              {Array.from({ length: width }, (_, at) => (
                <td key={at} data-unused={!held.has(at) || undefined}>
                  {row[at]}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </T.Columns>
  );
}
