import { useId, useMemo, useState } from "react";
import { Dialog, DialogTrigger, ListBox, ListBoxItem } from "react-aria-components";
import { usePlan } from "../../../data/plan";
import { TextButton } from "../../../parts/Button";
import { A_NUMBER, number, parsed } from "../../../parts/format";
import * as S from "./Filter.styles";
import {
  counts,
  everything,
  filtered,
  fromAddress,
  queryOf,
  type Filter,
  type Range,
} from "./filter";
import { useSift } from "../useSift";
import { useForms } from "./useForms";

/** How many keywords of the whole sheet one chip alone leaves. */
export function Alone({ filter }: { filter: Filter }) {
  const { sheet } = usePlan();
  const query = queryOf(filter);
  const forms = useForms(filter);
  const count = useMemo(
    () => filtered(sheet, fromAddress(new URLSearchParams(query)), forms).length,
    [sheet, query, forms],
  );
  return <S.Number>{number(count)}</S.Number>;
}

type PickProps = {
  id: string;
  name: string;
  values: string[];
  onValues: (values: string[]) => void;
};

export function PickChip({ id, name, values, onValues }: PickProps) {
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
  const forms = useForms(filter);
  const found = useMemo(() => counts(sheet, filter, forms, id), [sheet, filter, forms, id]);
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

export function RangeChip({ id, name, range, onRange }: RangeProps) {
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

/** One end of a range, read while it is typed; what is no number is said and changes nothing. */
function End({ label, value, onValue, first }: EndProps) {
  const [text, setText] = useState(value === null ? "" : String(value));
  const why = useId();
  const unread = text.trim() !== "" && parsed(text) === null;
  const type = (typed: string) => {
    setText(typed);
    const read = parsed(typed);
    if (read !== null || typed.trim() === "") onValue(read);
  };
  return (
    <label>
      {label}
      <input
        value={text}
        inputMode="decimal"
        aria-invalid={unread || undefined}
        aria-describedby={unread ? why : undefined}
        // eslint-disable-next-line jsx-a11y/no-autofocus -- the planner just opened it
        autoFocus={first}
        onChange={(event) => type(event.currentTarget.value)}
      />
      {unread && <S.Unread id={why}>expected {A_NUMBER}</S.Unread>}
    </label>
  );
}
