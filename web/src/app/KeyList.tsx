import styled from "styled-components";
import { ink } from "../look/tokens";
import { Button } from "../parts/Button";
import { Foot, Sheet } from "../parts/Sheet";
import { setSingleKeys, useSingleKeys } from "./keys";
import { lightings, lightSaid, setLighting, useLighting } from "../look/lighting";
import { Choice } from "../parts/Choice";

const keys: [string, [string, string][]][] = [
  [
    "Everywhere",
    [
      ["g then b g s a f h l", "go to a stage"],
      ["g c", "all clients"],
      ["Ctrl K", "any command by name"],
      ["w", "show or hide the workings"],
      ["Ctrl Z", "undo"],
      ["Ctrl Shift Z", "redo"],
      ["?", "this list"],
    ],
  ],
  [
    "In a sheet",
    [
      ["↑ ↓ or j k", "move"],
      ["x", "select the row"],
      ["Shift ↑ ↓", "extend the selection"],
      ["Ctrl A", "select all that is shown"],
      ["Escape", "select nothing"],
      ["/", "filter"],
    ],
  ],
  [
    "In Sift",
    [
      ["1 2 3 4", "keep, hold, drop, block"],
      ["0", "take the call back"],
      [".", "the same call again"],
      ["r n e", "reason of the call, note, change the selected"],
      ["[ ]", "move the line"],
      ["s T", "in sections, by theme, or one list; select the theme"],
      ["f", "filter and order anew"],
      ["t i o m c", "list, words, one by one, map, compare"],
      ["u", "house rules"],
      ["q z + -", "on the map: lasso, all of it, zoom"],
    ],
  ],
  [
    "In Arrange",
    [
      ["v 1 … 5", "groups, negatives, ads, pages, conflicts"],
      ["i e c", "groups, negatives, conflicts"],
      ["a y u", "write another ad, copy it, next group without one"],
      ["b", "arrange by a ready structure"],
      ["n", "to the group’s keywords"],
      ["m", "move the selected to another group"],
    ],
  ],
  [
    "In Gather and Fit",
    [
      ["Enter", "take the tray in; type a bid"],
      ["l", "in Fit: lock the bid, or give it back"],
    ],
  ],
  [
    "In Hand over and Learn",
    [
      ["m", "mend the first point that one key mends"],
      ["Enter", "do what is suggested"],
      ["n l", "leave it; ask again with later results"],
      ["o", "open the term in a search"],
    ],
  ],
];

type Props = { open: boolean; onOpen: (open: boolean) => void };

/** Every key, and the switch that turns single keys off. */
export function KeyList({ open, onOpen }: Props) {
  const on = useSingleKeys();
  const lighting = useLighting();
  return (
    <Sheet title="Keys" open={open} onOpen={onOpen} width={700}>
      <Lists>
        {keys.map(([title, rows]) => (
          <section key={title}>
            <h3>{title}</h3>
            <dl>
              {rows.map(([key, what]) => (
                <div key={key}>
                  <dt>
                    <kbd>{key}</kbd>
                  </dt>
                  <dd>{what}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </Lists>
      <Foot>
        <label>
          <input
            type="checkbox"
            checked={on}
            onChange={(event) => setSingleKeys(event.currentTarget.checked)}
          />{" "}
          single keys work outside of fields
        </label>
        <span>
          light:{" "}
          <Choice
            label="Light"
            inline
            value={lighting}
            options={lightings.map((one) => ({ id: one, name: lightSaid[one] }))}
            onChange={setLighting}
          />
        </span>
        <Button onPress={() => onOpen(false)}>Close</Button>
      </Foot>
    </Sheet>
  );
}

const Lists = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px 32px;
  h3 {
    margin-bottom: 6px;
  }
  dl {
    margin: 0;
  }
  dl div {
    display: flex;
    gap: 10px;
    padding: 3px 0;
    border-bottom: 1px solid ${ink.rule};
  }
  dt {
    width: 136px;
    flex: none;
  }
  dd {
    margin: 0;
  }
`;
