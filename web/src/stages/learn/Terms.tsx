import { useCallback, useMemo, useState } from "react";
import { useActions } from "../../app/actions";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { Blank } from "../../parts/Blank";
import { Button, MainButton, TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { Grid } from "../../parts/Grid";
import type { Column } from "../../parts/column";
import { count, money, number, plural } from "../../parts/format";
import { useMarked } from "../../parts/useMarked";
import { usePace } from "../../parts/usePace";
import { Evidence } from "./Evidence";
import * as S from "./Learn.styles";
import { searchOf, useSearchAddress } from "./searchAddress";
import type { LearnView, Term } from "./view";

type Which = "open" | "all" | "decided" | "items";
const words: Record<Term["suggestion"], string> = {
  block_family: "block the family",
  block_text: "block the text",
  own_keyword: "a keyword of its own",
  spot: "a spot of its own",
  wait: "wait",
};

/** What people typed: money first, with evidence and the suggested call. */
export function Terms({ view }: { view: LearnView }) {
  const { summary } = usePlan();
  const send = usePlanChange();
  const [which, setWhich] = useState<Which>("open");
  const { terms } = view;
  const { currency } = summary.brief.values;
  const columns = useMemo(() => termColumns(view, currency), [view, currency]);
  const rows = useMemo(
    () => terms.flatMap((term, at) => (shownAs(which, term) ? [at] : [])),
    [terms, which],
  );
  const keyOf = useCallback(
    (at: number) => {
      const { term, keyword, match } = terms[at]!;
      return [term, keyword, match].join("\n");
    },
    [terms],
  );
  const { active, setActive, selected, setSelected, clear } = useMarked(rows, keyOf);
  const chosen = (selected.size > 0 ? [...selected] : active === null ? [] : [active]).filter(
    (at) => terms[at] && !terms[at].decided,
  );
  const pace = usePace();
  const [address, setAddress] = useSearchAddress();
  const act = async (how: "suggested" | "block_text" | "own_keyword") => {
    pace.tick();
    const asSuggested = how === "suggested";
    const meant = chosen.filter((at) => !asSuggested || terms[at]!.suggestion !== "wait");
    const some = meant.map((at) => terms[at]!.term);
    const spots = meant.filter((at) => asSuggested && terms[at]!.suggestion === "spot");
    const codes = spots.map((at) => terms[at]!.term);
    setSelected(new Set());
    const others = some.filter((text) => !codes.includes(text));
    await send("post", "/learn/decide", {
      ...(codes.length > 0 && { items: { terms: codes } }),
      ...(others.length > 0 && { terms: { terms: others, act: how } }),
    });
  };
  const open = () => {
    const term = active === null ? undefined : terms[active]?.term;
    if (term && address) window.open(searchOf(address, term), "_blank", "noopener,noreferrer");
  };
  useActions([{ name: "Open the term in a search", keys: ["o"], run: open }]);
  const suggested = chosen.some((at) => terms[at]!.suggestion !== "wait");
  return (
    <>
      <S.Line>
        <Choice
          label="Which terms"
          inline
          value={which}
          options={[
            { id: "open", name: "to be decided" },
            { id: "all", name: "all" },
            { id: "decided", name: "decided" },
            ...(terms.some((term) => term.item)
              ? [{ id: "items" as const, name: "codes of things" }]
              : []),
          ]}
          onChange={(next) => {
            setWhich(next);
            clear();
          }}
        />
        <MainButton isDisabled={!suggested} onPress={() => void act("suggested")}>
          As suggested <kbd>Enter</kbd>
        </MainButton>
        <Button isDisabled={chosen.length === 0} onPress={() => void act("block_text")}>
          Block the text
        </Button>
        <Button isDisabled={chosen.length === 0} onPress={() => void act("own_keyword")}>
          Make it a keyword
        </Button>
        <small>
          {plural(rows.length, "term")} of {number(terms.length)}
          {which === "open" && pace.minutes(rows.length)}. Searches open at{" "}
          <Blank
            label="Search address"
            value={address}
            placeholder="no address yet"
            onCommit={(text) => {
              setAddress(text.trim());
              return true;
            }}
          />{" "}
          <TextButton isDisabled={active === null || !address} onPress={open}>
            open this one <kbd>o</kbd>
          </TextButton>
        </small>
      </S.Line>
      <Grid
        label="Terms"
        columns={columns}
        rows={rows}
        idOf={(row) => row}
        active={active}
        onActive={setActive}
        selected={selected}
        onSelected={setSelected}
        onEnter={() => suggested && void act("suggested")}
        empty={
          terms.length === 0
            ? "No report of terms is in force."
            : "Nothing of this kind: every suggestion is decided."
        }
      />
    </>
  );
}

function shownAs(which: Which, term: Term): boolean {
  if (which === "all") return true;
  if (which === "items") return term.item;
  if (which === "decided") return term.decided;
  return !term.decided && term.suggestion !== "wait";
}

function termColumns(view: LearnView, currency: string): Column[] {
  const { terms } = view;
  const figure = (id: string, head: string, of: (term: Term) => number, shown = count): Column => ({
    ...{ id, head, label: head, width: "minmax(64px, 0.5fr)" },
    align: "end",
    cell: (row) => shown(of(terms[row]!)),
    leaves: [{ head, value: (row) => of(terms[row]!) }],
  });
  return [
    {
      ...{ id: "term", head: "term", label: "term", width: "minmax(210px, 1.8fr)" },
      cell: (row) => {
        const { term, item, thing } = terms[row]!;
        return item ? (
          <>
            {term} <S.Faint>{thing || "a thing’s code"}</S.Faint>
          </>
        ) : (
          term
        );
      },
      leaves: [{ head: "term", value: (row) => terms[row]!.term }],
    },
    figure("cost", `cost, ${currency}`, (term) => term.cost, money),
    figure("clicks", "clicks", (term) => term.clicks, number),
    figure("customers", "customers", (term) => term.customers, number),
    {
      ...{ id: "missing", head: "misses the rule", label: "misses the rule", width: "178px" },
      cell: (row) => <Evidence missing={terms[row]!.missing} marks={view} />,
      leaves: [{ head: "chance of missing the rule", value: (row) => terms[row]!.missing }],
    },
    {
      ...{ id: "suggestion", head: "suggested", label: "suggested" },
      width: "minmax(150px, 1fr)",
      cell: (row) => {
        const term = terms[row]!;
        if (term.decided) return <S.Faint>decided</S.Faint>;
        return <S.Kind data-kind={term.suggestion}>{words[term.suggestion]}</S.Kind>;
      },
      leaves: [{ head: "suggested", value: (row) => words[terms[row]!.suggestion] }],
    },
    {
      ...{ id: "ground", head: "because", label: "because", width: "minmax(180px, 1.4fr)" },
      cell: (row) => why(terms[row]!),
    },
  ];
}

function why(term: Term): string {
  if (term.suggestion === "wait")
    return term.clicks_needed === null
      ? "too little is known yet"
      : `needs ${plural(Math.ceil(term.clicks_needed), "click")} more without a sale`;
  if (term.suggestion === "own_keyword" && term.bid !== null)
    return `${term.ground}; bid ${money(term.bid)}${term.group ? ` in ${term.group}` : ""}`;
  return term.form && term.form !== term.term ? `${term.ground}; “${term.form}”` : term.ground;
}
