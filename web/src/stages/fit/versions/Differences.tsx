import { useNavigate } from "react-router";
import { useAsking } from "../../../app/asked";
import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { TextButton } from "../../../parts/Button";
import { money, number } from "../../../parts/format";
import * as S from "./Versions.styles";
import { nameOf, type Version } from "./version";

type Side = Schemas["VersionSide"];
type Kind = Schemas["VersionSide"]["differences"]["kind"][number];
type Value = string | number | boolean | null;

const kinds: Record<Kind, { name: string; stage: string }> = {
  brief: { name: "Brief and limits", stage: "brief" },
  assumption: { name: "Assumptions", stage: "brief" },
  keyword: { name: "Keywords in one alone", stage: "sift" },
  call: { name: "Calls", stage: "sift" },
  group: { name: "Groups", stage: "arrange" },
  bid: { name: "Bids", stage: "fit" },
  negative: { name: "Negatives", stage: "arrange" },
  spot: { name: "Spots", stage: "arrange" },
};

type Props = { family: Version[]; sides: Side[] };

/** What is not as in the plan that is open, version by version and kind by kind. */
export function Differences({ family, sides }: Props) {
  return (
    <S.Columns>
      {sides.map((side) => {
        const version = family.find((one) => one.id === side.plan_id);
        return (
          version && (
            <section key={side.plan_id} aria-label={`What differs in ${nameOf(version)}`}>
              <h2>{nameOf(version)}</h2>
              <OfOne side={side} />
            </section>
          )
        );
      })}
    </S.Columns>
  );
}

type OneProps = { side: Side };

function OfOne({ side }: OneProps) {
  const found = side.differences;
  const here = Object.keys(found.of_kind) as Kind[];
  if (here.length === 0) return <p>Nothing differs: the same calls, groups, bids and brief.</p>;
  return here.map((kind) => {
    const at = found.kind.flatMap((one, place) => (one === kind ? [place] : []));
    const more = found.of_kind[kind]! - at.length;
    return (
      <details key={kind} open={at.length <= 12}>
        <summary>
          {kinds[kind].name} <b>{number(found.of_kind[kind])}</b>
        </summary>
        <ul>
          {at.map((place) => (
            <li key={place}>
              <What kind={kind} what={found.what[place]!} />
              <span>
                <s>{said(found.was[place]!, found.unit[place]!)}</s>{" "}
                <b>{said(found.now[place]!, found.unit[place]!)}</b>
              </span>
            </li>
          ))}
          {more > 0 && <li>… and {number(more)} more</li>}
        </ul>
      </details>
    );
  });
}

type WhatProps = { kind: Kind; what: string };

/** What differs, as the way to where it can be changed. */
function What({ kind, what }: WhatProps) {
  const { id, sheet } = usePlan();
  const { setActive } = useAsking();
  const navigate = useNavigate();
  const open = () => {
    const row = sheet.texts.text.findIndex((text) => text.toLowerCase() === what.toLowerCase());
    if (row >= 0) setActive(sheet.texts.id[row]!);
    void navigate(`/plan/${id}/${kinds[kind].stage}`);
  };
  return <TextButton onPress={open}>{what}</TextButton>;
}

function said(value: Value, unit: string): string {
  if (value === null || value === "") return "none";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "number")
    return unit.startsWith("money") ? money(value) : number(value, Number.isInteger(value) ? 0 : 3);
  return value;
}
