import { useMemo, useState, type Ref } from "react";
import { Button, Dialog, DialogTrigger, ListBox, ListBoxItem } from "react-aria-components";
import { useActions } from "../../app/actions";
import { client, taken } from "../../data/client";
import { usePlan } from "../../data/plan";
import { TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { number, parsed, plural } from "../../parts/format";
import * as S from "./Filter.styles";
import {
  counts,
  everything,
  filtered,
  flags,
  fromAddress,
  picks,
  queryOf,
  ranges,
  type Filter,
  type Range,
} from "./filter";
import { useSift } from "./desk";

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
      <Saved />
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

/** How many keywords of the whole sheet one chip alone leaves. */
function Alone({ filter }: { filter: Filter }) {
  const { sheet } = usePlan();
  const query = queryOf(filter);
  const count = useMemo(
    () => filtered(sheet, fromAddress(new URLSearchParams(query))).length,
    [sheet, query],
  );
  return <S.Number>{number(count)}</S.Number>;
}

type PickProps = {
  id: string;
  name: string;
  values: string[];
  onValues: (values: string[]) => void;
};

function PickChip({ id, name, values, onValues }: PickProps) {
  const said = values.length ? values.map((value) => spoken(id, value)).join(", ") : "any";
  return (
    <DialogTrigger>
      <S.ChipButton data-on={values.length > 0 || undefined}>
        <span>
          {name}: {said}
        </span>
        {values.length > 0 && <Alone filter={{ ...everything, picks: { [id]: values } }} />}
      </S.ChipButton>
      <S.Pop>
        <Dialog aria-label={`Filter by ${name}`}>
          <Values id={id} name={name} values={values} onValues={onValues} />
        </Dialog>
      </S.Pop>
    </DialogTrigger>
  );
}

function Values({ id, name, values, onValues }: PickProps) {
  const { sheet } = usePlan();
  const { filter } = useSift();
  const found = useMemo(() => counts(sheet, filter, id), [sheet, filter, id]);
  const known = [...new Set([...values, ...found.keys()])].sort(
    (a, b) => (found.get(b) ?? 0) - (found.get(a) ?? 0) || a.localeCompare(b),
  );
  return (
    <ListBox
      aria-label={name}
      selectionMode="multiple"
      escapeKeyBehavior="none"
      // eslint-disable-next-line jsx-a11y/no-autofocus -- the planner just opened it
      autoFocus
      selectedKeys={values.map((value) => `v${value}`)}
      onSelectionChange={(keys) =>
        onValues(keys === "all" ? known : [...keys].map((key) => String(key).slice(1)))
      }
      renderEmptyState={() => "No keyword is shown."}
    >
      {known.map((value) => (
        <ListBoxItem key={value} id={`v${value}`} textValue={spoken(id, value)}>
          <span>{spoken(id, value)}</span> <S.Number>{number(found.get(value) ?? 0)}</S.Number>
        </ListBoxItem>
      ))}
    </ListBox>
  );
}

const words: Record<string, string> = {
  in_reach: "in reach",
  none: "not yet called",
  hand: "by hand",
  word: "by word",
  rule: "by rule",
  file: "by file",
};

/** A value as it reads. */
export function spoken(id: string, value: string): string {
  if (value === "") return id === "offer" ? "first offer" : `no ${id === "by" ? "call" : id}`;
  return words[value] ?? value;
}

type RangeProps = {
  id: string;
  name: string;
  range: Range;
  onRange: (range: Range | null) => void;
};

function RangeChip({ id, name, range, onRange }: RangeProps) {
  const [least, most] = range;
  const said =
    least === null && most === null
      ? "known"
      : least === null
        ? `up to ${most}`
        : most === null
          ? `${least} or more`
          : `${least} to ${most}`;
  return (
    <DialogTrigger defaultOpen={least === null && most === null}>
      <S.ChipButton data-on>
        <span>
          {name} {said}
        </span>
        <Alone filter={{ ...everything, ranges: { [id]: range } }} />
      </S.ChipButton>
      <S.Pop>
        <Dialog aria-label={`Range of ${name}`}>
          {({ close }) => (
            <S.Ends>
              <End
                label={`${name}, from`}
                value={least}
                onValue={(v) => onRange([v, most])}
                first
              />
              <End label={`${name}, to`} value={most} onValue={(v) => onRange([least, v])} />
              <TextButton
                onPress={() => {
                  close();
                  onRange(null);
                }}
              >
                take it off
              </TextButton>
            </S.Ends>
          )}
        </Dialog>
      </S.Pop>
    </DialogTrigger>
  );
}

type EndProps = {
  label: string;
  value: number | null;
  onValue: (value: number | null) => void;
  first?: boolean;
};

function End({ label, value, onValue, first }: EndProps) {
  const [text, setText] = useState(value === null ? "" : String(value));
  return (
    <label>
      {label}
      <input
        value={text}
        inputMode="decimal"
        // eslint-disable-next-line jsx-a11y/no-autofocus -- the planner just opened it
        autoFocus={first}
        onChange={(event) => {
          setText(event.currentTarget.value);
          onValue(parsed(event.currentTarget.value));
        }}
      />
    </label>
  );
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
    else if (id === "since") set({ since: new Date().toISOString().slice(0, 10) });
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

/** Filters saved by name. */
function Saved() {
  const { id, frame, change } = usePlan();
  const { filter, setFilter } = useSift();
  const [name, setName] = useState("");
  const saved = frame.own.saved_filters;
  const query = queryOf(filter);
  const keep = (filters: typeof saved) =>
    void change(() =>
      taken(
        client.PATCH("/api/plans/{plan_id}/own", {
          params: { path: { plan_id: id } },
          body: { saved_filters: filters },
        }),
      ),
    );
  const clear = () => setFilter(everything);
  useActions([
    { name: "Show every keyword: no filter", run: clear },
    ...saved.map((one) => ({
      name: `Filter: ${one.name}`,
      run: () => setFilter(fromAddress(new URLSearchParams(one.query))),
    })),
  ]);
  return (
    <>
      {query && <TextButton onPress={clear}>clear</TextButton>}
      <DialogTrigger>
        <TextButton>saved{saved.length > 0 && ` (${number(saved.length)})`}</TextButton>
        <S.Pop>
          <Dialog aria-label="Saved filters">
            {({ close }) => (
              <S.Ends>
                {saved.map((one) => (
                  <S.SavedRow key={one.name}>
                    <TextButton
                      onPress={() => {
                        setFilter(fromAddress(new URLSearchParams(one.query)));
                        close();
                      }}
                    >
                      {one.name}
                    </TextButton>
                    <Button
                      aria-label={`Forget ${one.name}`}
                      onPress={() => keep(saved.filter((other) => other.name !== one.name))}
                    >
                      ×
                    </Button>
                  </S.SavedRow>
                ))}
                <label>
                  save this one as
                  <input
                    value={name}
                    onChange={(event) => setName(event.currentTarget.value)}
                    onKeyDown={(event) => {
                      event.stopPropagation();
                      if (event.key !== "Enter" || !name.trim()) return;
                      keep([
                        ...saved.filter((one) => one.name !== name.trim()),
                        { name: name.trim(), query },
                      ]);
                      setName("");
                      close();
                    }}
                  />
                </label>
              </S.Ends>
            )}
          </Dialog>
        </S.Pop>
      </DialogTrigger>
    </>
  );
}
