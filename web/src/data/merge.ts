import type { ChangeAnswer, PlanAnswer, Texts } from "./client";

/**
 * Lay an answer upon the plan as this window has it. Returns undefined where the answer
 * belongs to another revision, so that the plan must be read anew.
 */
export function merged(plan: PlanAnswer, answer: ChangeAnswer): PlanAnswer | undefined {
  if (answer.sheet) return { summary: answer.summary, sheet: answer.sheet };
  if (plan.summary.revision !== answer.was) return undefined;
  const { texts, figures, groups, campaigns } = plan.sheet;
  const moved = Object.entries(answer.columns ?? {}).filter(([, column]) => column != null);
  return {
    summary: answer.summary,
    sheet: {
      groups,
      campaigns,
      texts: answer.rows ? withRows(texts, answer.rows) : texts,
      figures: moved.length > 0 ? { ...figures, ...Object.fromEntries(moved) } : figures,
    },
  };
}

function withRows(texts: Texts, rows: Texts): Texts {
  const place = new Map(texts.id.map((id, row) => [id, row]));
  // the ids stay the very same array: they tell whether keywords came or went
  const names = (Object.keys(texts) as (keyof Texts)[]).filter((name) => name !== "id");
  const columns = names.map((name) => {
    const old: unknown[] = texts[name];
    // a column that nothing changed in stays the very same array: orders hang on it
    if (rows[name].every((value, at) => Object.is(old[place.get(rows.id[at]!) ?? -1], value)))
      return [name, old];
    const column = old.slice();
    rows.id.forEach((id, at) => {
      const row = place.get(id);
      if (row !== undefined) column[row] = rows[name][at];
    });
    return [name, column];
  });
  return { id: texts.id, ...Object.fromEntries(columns) } as Texts;
}
