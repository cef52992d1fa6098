import { useMemo, useState } from "react";
import { useActions } from "../../../app/actions";
import { useAsked } from "../../../app/asked";
import type { CallName } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { useSaying } from "../../../data/saying";
import { TextButton } from "../../../parts/Button";
import type { Sort } from "../../../parts/column";
import type { Divider } from "../../../parts/Grid";
import { plural } from "../../../parts/format";
import * as S from "../Sift.styles";
import { useSift } from "../useSift";
import { inSections, inThemes, ordered, type Section } from "./order";

/** How the list is parted: not at all, by calls and the line, by theme. */
export type Parted = "no" | "sections" | "themes";

const next: Record<Parted, Parted> = { no: "sections", sections: "themes", themes: "no" };
const nextName: Record<Parted, string> = {
  no: "In sections: kept, not called, beyond",
  sections: "In sections by theme",
  themes: "One list, no sections",
};

/** A section's name across the list; a theme can be called at once. */
export const sectionHead = (
  { id, name, before, length }: Section,
  onCall?: (call: CallName) => void,
): Divider => ({
  id,
  before,
  content: (
    <S.Section>
      <strong>{name}</strong> {plural(length, "keyword")}{" "}
      {onCall &&
        (["keep", "hold", "drop"] as const).map((call) => (
          <TextButton
            key={call}
            aria-label={`${call} the theme ${name}`}
            onPress={() => onCall(call)}
          >
            {call}
          </TextButton>
        ))}
    </S.Section>
  ),
});

/** The list in one piece, in sections or by theme, and the keys that say which. */
export function useParted(shown: number[], sort: Sort) {
  const { idOf, setSelected } = useSift();
  const { active } = useAsked();
  const { say } = useSaying();
  const [parted, setParted] = useState<Parted>("no");
  const rows = useRows(shown, sort, parted);
  const idsOf = ({ before, length }: Section) => rows.rows.slice(before, before + length).map(idOf);
  const selectTheme = () => {
    const at = active === null ? -1 : rows.rows.findIndex((row) => idOf(row) === active);
    const theme = rows.sections.findLast(({ before }) => before <= at);
    if (parted !== "themes" || at < 0 || !theme) say("Stand in a theme first: s until it says so.");
    else setSelected(new Set(idsOf(theme)));
  };
  useActions([
    { name: nextName[parted], keys: ["s"], run: () => setParted(next[parted]) },
    { name: "Select the theme of this keyword", keys: ["T"], run: selectTheme },
  ]);
  return { parted, rows, idsOf };
}

/** The order rows are shown in. It changes when asked for, never because of a call. */
function useRows(shown: number[], sort: Sort, parted: Parted) {
  const { sheet } = usePlan();
  const themes = usePlanQuery("/sift/themes", { enabled: parted === "themes" }).data;
  const { names, of_row } = themes ?? {};
  return useMemo(() => {
    const rows = ordered(sheet, shown, sort);
    if (parted === "themes" && names && of_row) return inThemes({ names, of_row }, rows);
    return parted === "sections" ? inSections(sheet, rows) : { rows, sections: [] };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the sheet is left out: its calls must not move rows
  }, [shown, sort, parted, names, of_row]);
}
