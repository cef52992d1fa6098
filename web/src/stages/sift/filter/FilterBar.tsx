import type { Ref } from "react";
import { usePlan } from "../../../data/plan";
import { Choice } from "../../../parts/Choice";
import { today } from "../../../parts/days";
import { number, plural } from "../../../parts/format";
import * as S from "./Filter.styles";
import { Alone, PickChip, RangeChip } from "./FilterChips";
import { SavedFilters } from "./SavedFilters";
import { everything, flags, picks, ranges, type Filter } from "./filter";
import { useSift } from "../useSift";

const always = ["intent", "standing", "call"];

type Props = { search: Ref<HTMLInputElement>; onLeave: () => void };

/** What is shown, as chips that can be combined, saved by name, and sent as an address. */
export function FilterBar({ search, onLeave }: Props) {
  const { sheet } = usePlan();
  const { filter, setFilter, shown, selected } = useSift();
  const all = sheet.texts.id.length;
  const set = (some: Partial<Filter>) => setFilter({ ...filter, ...some });
  const without = (names: string[], gone: string) => names.filter((name) => name !== gone);
  const shownPicks = picks.filter(({ id }) => always.includes(id) || filter.picks[id]);
  return (
    <S.Bar>
      <S.Search
        ref={search}
        aria-label="Filter: words in, -words out"
        placeholder="/  words in, -words out"
        value={filter.words}
        onChange={(event) => set({ words: event.currentTarget.value })}
        onKeyDown={(event) => {
          if (event.key === "Escape") set({ words: "" });
          if (["Escape", "Enter", "ArrowDown"].includes(event.key)) onLeave();
        }}
      />
      {shownPicks.map(({ id, name }) => (
        <PickChip
          key={id}
          id={id}
          name={name}
          values={filter.picks[id] ?? []}
          onValues={(values) =>
            set({ picks: withEntry(filter.picks, id, values.length ? values : null) })
          }
        />
      ))}
      {ranges
        .filter(({ id }) => filter.ranges[id])
        .map(({ id, name }) => (
          <RangeChip
            key={id}
            id={id}
            name={name}
            range={filter.ranges[id]!}
            onRange={(range) => set({ ranges: withEntry(filter.ranges, id, range) })}
          />
        ))}
      {flags
        .filter(({ id }) => filter.flags.includes(id))
        .map(({ id, name }) => (
          <S.Chip key={id} data-on>
            {name} <Alone filter={{ ...everything, flags: [id] }} />
            <S.Away
              aria-label={`No longer: ${name}`}
              onPress={() => set({ flags: without(filter.flags, id) })}
            >
              ×
            </S.Away>
          </S.Chip>
        ))}
      {filter.since && (
        <S.Chip data-on>
          called since{" "}
          <input
            type="date"
            aria-label="Called since"
            value={filter.since}
            onChange={(event) => set({ since: event.currentTarget.value })}
          />
          <Alone filter={{ ...everything, since: filter.since }} />
          <S.Away aria-label="No longer: called since" onPress={() => set({ since: "" })}>
            ×
          </S.Away>
        </S.Chip>
      )}
      <More filter={filter} set={set} />
      <SavedFilters />
      <S.Count>
        {shown.length === all
          ? plural(all, "keyword")
          : `${number(shown.length)} of ${plural(all, "keyword")}`}
        {selected.size > 0 && <b>, {number(selected.size)} selected</b>}
      </S.Count>
    </S.Bar>
  );
}

function withEntry<T>(held: Record<string, T>, id: string, value: T | null): Record<string, T> {
  const others = Object.entries(held).filter(([name]) => name !== id);
  return Object.fromEntries(value === null ? others : [...others, [id, value]]);
}

type MoreProps = { filter: Filter; set: (some: Partial<Filter>) => void };

/** Further things to filter by. */
function More({ filter, set }: MoreProps) {
  const free = [
    ...picks.filter(({ id }) => !always.includes(id) && !filter.picks[id]),
    ...ranges.filter(({ id }) => !filter.ranges[id]),
    ...flags.filter(({ id }) => !filter.flags.includes(id)),
    ...(filter.since ? [] : [{ id: "since", name: "called since" }]),
  ];
  const add = (id: string) => {
    if (picks.some((pick) => pick.id === id)) set({ picks: { ...filter.picks, [id]: [] } });
    else if (ranges.some((range) => range.id === id))
      set({ ranges: { ...filter.ranges, [id]: [null, null] } });
    else if (id === "since") set({ since: today() });
    else if (id) set({ flags: [...filter.flags, id] });
  };
  return (
    <Choice
      label="Filter by something else"
      value=""
      options={[{ id: "", name: "+ filter" }, ...free]}
      onChange={add}
    />
  );
}
