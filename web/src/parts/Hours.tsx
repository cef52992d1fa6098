import { ToggleButton, ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";
import type { Schemas } from "../data/client";
import { ink } from "../look/tokens";
import { Choice } from "./Choice";

export type Times = Schemas["ShowingValues"];

export const dayNames = Array.from({ length: 7 }, (_, day) =>
  new Intl.DateTimeFormat("en", { weekday: "short" }).format(new Date(2026, 5, 1 + day)),
);
const hour = (at: number) => ({ id: String(at), name: `${String(at).padStart(2, "0")}:00` });
const starts = Array.from({ length: 24 }, (_, at) => hour(at));
const ends = Array.from({ length: 24 }, (_, at) => hour(at + 1));
/** The planner's own time zone. */
export const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
export const always: Times = {
  days: dayNames.map(() => true),
  from_hour: 0,
  to_hour: 24,
  zone: here,
  share: null,
};

type Props = {
  shown: Times;
  assumed: boolean;
  onChange: (some: Partial<Times>) => void;
};

/** Days and hours, within a sentence: Mon Tue Wed … from 08:00 to 18:00. */
export function Hours({ shown, assumed, onChange }: Props) {
  const picked = shown.days.flatMap((on, day) => (on ? [String(day)] : []));
  return (
    <>
      <Days
        aria-label="Days of showing"
        selectionMode="multiple"
        disallowEmptySelection
        selectedKeys={picked}
        onSelectionChange={(keys) =>
          onChange({ days: dayNames.map((_, d) => keys.has(String(d))) })
        }
      >
        {dayNames.map((name, day) => (
          <ToggleButton key={name} id={String(day)}>
            {name}
          </ToggleButton>
        ))}
      </Days>{" "}
      from{" "}
      <Choice
        label="Shown from"
        value={String(shown.from_hour)}
        options={starts}
        inline
        assumed={assumed}
        onChange={(at) => onChange({ from_hour: Number(at) })}
      />{" "}
      to{" "}
      <Choice
        label="Shown until"
        value={String(shown.to_hour)}
        options={ends}
        inline
        assumed={assumed}
        onChange={(at) => onChange({ to_hour: Number(at) })}
      />
    </>
  );
}

/** Days and hours in a few letters: Mon–Fri, 08–18. */
export function hoursInShort({ days, from_hour, to_hour }: Times): string {
  const on = days.flatMap((is, day) => (is ? [day] : []));
  const [first, last] = [on[0] ?? 0, on.at(-1) ?? 0];
  const run = last - first + 1 === on.length && on.length > 2;
  const named = run
    ? `${dayNames[first]}–${dayNames[last]}`
    : on.map((day) => dayNames[day]).join(" ");
  const two = (at: number) => String(at).padStart(2, "0");
  const whole = on.length === dayNames.length ? "all week" : named;
  return from_hour === 0 && to_hour === dayHours
    ? whole
    : `${whole}, ${two(from_hour)}–${two(to_hour)}`;
}

const dayHours = 24;

const Days = styled(ToggleButtonGroup)`
  display: inline-flex;
  gap: 2px;
  button {
    background: none;
    border: 0;
    border-bottom: 1.5px solid transparent;
    padding: 0 4px;
    cursor: pointer;
    font:
      13.5px "IBM Plex Sans",
      sans-serif;
    color: ${ink.ink3};
    text-decoration: line-through;
    &[data-selected] {
      color: ${ink.petalDeep};
      font-weight: 600;
      border-bottom-color: ${ink.petal};
      text-decoration: none;
    }
  }
`;
