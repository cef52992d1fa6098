import { useMemo } from "react";
import { Button } from "react-aria-components";
import styled from "styled-components";
import { usePlan } from "../../../data/plan";
import { ink } from "../../../look/tokens";
import { Button as Quiet, TextButton } from "../../../parts/Button";
import { Foot, Sheet } from "../../../parts/Sheet";
import { priceScale } from "../../../parts/scale";
import { inOrder, movedColumn, useColumnPlan } from "./columnPlan";
import { listColumns, whiskerWidth } from "./columns";

type Props = { open: boolean; onOpen: (open: boolean) => void };

const least = 40;
const step = 20;

/** Columns of the list: which, in which order, how wide. */
export function ColumnSheet({ open, onOpen }: Props) {
  const { sheet, summary } = usePlan();
  const { plan, setPlan } = useColumnPlan();
  const all = useMemo(
    () =>
      listColumns(sheet, priceScale(sheet.figures, whiskerWidth), summary.brief.values.currency),
    [sheet, summary.brief.values.currency],
  );
  const toggle = (id: string, on: boolean) =>
    setPlan({ ...plan, hidden: on ? plan.hidden.filter((h) => h !== id) : [...plan.hidden, id] });
  const widen = (id: string, width: string, by: number) => {
    const now = plan.widths[id] ?? (Number(/\d+/.exec(width)?.[0]) || 100);
    setPlan({ ...plan, widths: { ...plan.widths, [id]: Math.max(least, now + by) } });
  };
  return (
    <Sheet title="Columns of the list" open={open} onOpen={onOpen} width={440}>
      <List>
        {inOrder(all, plan).map(({ id, label, width }) => (
          <li key={id}>
            <label>
              <input
                type="checkbox"
                checked={!plan.hidden.includes(id)}
                disabled={id === "keyword"}
                onChange={(event) => toggle(id, event.currentTarget.checked)}
              />{" "}
              {label}
            </label>
            <span>
              <Button
                aria-label={`${label}: further left`}
                onPress={() => setPlan(movedColumn(all, plan, id, -1))}
              >
                ↑
              </Button>
              <Button
                aria-label={`${label}: further right`}
                onPress={() => setPlan(movedColumn(all, plan, id, 1))}
              >
                ↓
              </Button>
              <Button aria-label={`${label}: narrower`} onPress={() => widen(id, width, -step)}>
                −
              </Button>
              <Button aria-label={`${label}: wider`} onPress={() => widen(id, width, step)}>
                +
              </Button>
            </span>
          </li>
        ))}
      </List>
      <Foot>
        <TextButton onPress={() => setPlan(null)}>as they come</TextButton>
        <Quiet onPress={() => onOpen(false)}>Done</Quiet>
      </Foot>
    </Sheet>
  );
}

const List = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    display: flex;
    justify-content: space-between;
    border-bottom: 1px solid ${ink.rule};
    padding: 2px 0;
  }
  li button {
    width: 26px;
    border: 0;
    background: none;
    cursor: pointer;
  }
  li button[data-hovered] {
    background: ${ink.petalWash};
  }
`;
