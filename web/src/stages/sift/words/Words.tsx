import { useCallback, useMemo, useRef, useState } from "react";
import { useActions } from "../../../app/actions";
import { useAsking } from "../../../app/asked";
import { type CallName, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { Choice } from "../../../parts/Choice";
import { NotYet } from "../../../parts/NotYet";
import { leaf } from "../../../parts/shownList";
import type { Column, Plain, Sort } from "../../../parts/column";
import { Grid, type GridHandle } from "../../../parts/Grid";
import { count, money, number } from "../../../parts/format";
import { roomFor } from "../../../parts/roomFor";
import { useMarked } from "../../../parts/useMarked";
import { CallOver, type Over } from "../CallOver";
import { BlockSheet } from "../BlockSheet";
import * as S from "../Sift.styles";
import { useCalls, useSift } from "../useSift";

type View = Schemas["WordsView"];
type Kind = Schemas["WordKindChange"]["kind"];

const kinds: Record<string, string> = {
  "!": "warning",
  r: "firm's name",
  p: "another place",
  o: "my place",
  h: "helper",
  w: "what is sought",
};
const sayings: { id: NonNullable<Kind> | "none"; name: string; about?: string }[] = [
  { id: "none", name: "as it is read" },
  { id: "place", name: "a place of mine", about: "its searchers are ours: no area share" },
  { id: "where", name: "another place" },
  { id: "own", name: "our name", about: "who types it knows us already" },
  { id: "rival", name: "a rival's brand", about: "whoever types it seeks that firm" },
  { id: "warning", name: "a warning word" },
  { id: "helper", name: "a helper word" },
  { id: "what", name: "an everyday word", about: "it warns of nothing" },
];

/** Every word and two-word run of the sheet: one key calls all keywords with it. */
export function Words() {
  const { summary, sheet } = usePlan();
  const send = usePlanChange();
  const { filter, setFilter } = useSift();
  const { callAs } = useCalls();
  const [sort, setSort] = useState<Sort>({ by: "warning", down: false });
  const [over, setOver] = useState<Over | null>(null);
  const [blocking, setBlocking] = useState<string | null>(null);
  const grid = useRef<GridHandle>(null);
  const query = usePlanQuery("/sift/words");
  const view = query.data;
  const rows = useMemo(
    () => (view ? ordered(view, filter.words, sort) : []),
    [view, filter.words, sort],
  );
  const keyOf = useCallback((at: number) => view?.word[at] ?? "", [view]);
  const { active, setActive } = useMarked(rows, keyOf);
  const { currency } = summary.brief.values;
  const columns = useMemo(() => (view ? columnsOf(view, currency) : []), [view, currency]);
  const idsOf = useCallback(
    (at: number) => view?.ids.slice(view.starts[at], view.starts[at + 1]) ?? [],
    [view],
  );
  const { ask } = useAsking();
  const stand = (at: number) => {
    setActive(at);
    const ids = idsOf(at);
    if (ids.length > 0) ask({ kind: "selection", ids }, false);
  };
  const word = active === null ? undefined : view?.word[active];

  const callAll = (call: CallName) => {
    if (active === null || !view) return;
    if (call === "block") return setBlocking(view.word[active] ?? null);
    const calls = new Map(sheet.texts.id.map((one, row) => [one, sheet.texts.call[row] ?? "none"]));
    const ids = idsOf(active);
    const free = ids.filter((one) => calls.get(one) === "none" || calls.get(one) === call);
    if (free.length === ids.length || call === "none") void callAs(call, ids, { by: "word" });
    else setOver({ call, word: word ?? "", free, all: ids });
  };
  const say = (kind: Kind) =>
    word !== undefined && void send("post", "/sift/word-kind", { word, kind });
  useActions([
    { name: "Next word", keys: ["j", "ArrowDown"], run: () => grid.current?.move(1) },
    { name: "Word before", keys: ["k", "ArrowUp"], run: () => grid.current?.move(-1) },
    { name: "Keep all keywords with this word", keys: ["1"], run: () => callAll("keep") },
    { name: "Hold all keywords with this word", keys: ["2"], run: () => callAll("hold") },
    { name: "Drop all keywords with this word", keys: ["3"], run: () => callAll("drop") },
    { name: "Block this word", keys: ["4"], run: () => callAll("block") },
    { name: "Take back the calls of this word", keys: ["0"], run: () => callAll("none") },
    ...sayings.map(({ id: kind, name }) => ({
      name: `This word is ${name}`,
      run: () => say(kind === "none" ? null : kind),
    })),
  ]);
  if (!view)
    return (
      <S.Waiting>
        <NotYet of={query}>Reading the words …</NotYet>
      </S.Waiting>
    );
  return (
    <>
      <S.Under>
        {word === undefined ? (
          "A row is a word: 1 to 4 call all its keywords, those already called are asked about."
        ) : (
          <>
            <b>{word}</b> is{" "}
            <Choice
              label={`What ${word} is`}
              inline
              value={saidOf(word, summary.own.word_kinds, summary.brief.values.places)}
              options={sayings}
              onChange={(kind) => say(kind === "none" ? null : kind)}
            />
            , in {number(view.keywords[active!])} keywords.
            <S.Link onPress={() => setFilter({ ...filter, words: word })}>only these</S.Link>
          </>
        )}
      </S.Under>
      <Grid
        label="Words"
        handle={grid}
        columns={columns}
        rows={rows}
        idOf={(row) => row}
        active={active}
        onActive={stand}
        selected={none}
        onSelected={() => undefined}
        sort={sort}
        onSort={setSort}
        look={(row) => ({ dim: view.called[row] === view.keywords[row] })}
        empty="No word is shown: clear the filter."
      />
      <CallOver over={over} onDone={() => setOver(null)} />
      <BlockSheet word={blocking} onDone={() => setBlocking(null)} />
    </>
  );
}

const none: ReadonlySet<number> = new Set();

const saidOf = (word: string, own: Record<string, string>, places: string[]) =>
  places.some((place) => place.toLocaleLowerCase() === word)
    ? "place"
    : ((own[word] as NonNullable<Kind> | undefined) ?? "none");

type Value = (row: number) => number | string | null | undefined;

function ordered(view: View, words: string, sort: Sort): number[] {
  const wanted = words
    .toLocaleLowerCase()
    .split(/\s+/)
    .filter((w) => w && !w.startsWith("-"));
  const rows = view.word.flatMap((word, row) =>
    wanted.every((w) => word.includes(w)) ? [row] : [],
  );
  if (sort.by === "warning") return rows;
  const values: Record<string, Value> = {
    word: (row) => view.word[row],
    kind: (row) => kinds[view.kind[row] ?? "w"],
    keywords: (row) => view.keywords[row],
    called: (row) => view.called[row]! / view.keywords[row]!,
    kept: (row) => view.kept[row],
    searches: (row) => view.searches[row],
    price: (row) => view.price_high[row],
    customers: (row) => view.customers[row],
  };
  const value = values[sort.by] ?? (() => null);
  const sign = sort.down ? -1 : 1;
  return rows.sort((one, other) => {
    const [a, b] = [value(one), value(other)];
    if (a == null || b == null) return a == null ? (b == null ? 0 : 1) : -1;
    if (typeof a === "string") return sign * a.localeCompare(String(b));
    return sign * (a - Number(b));
  });
}

/** As wide as a low and a high price can be. */
const twoPrices = (high: number): string => `${money(high)} – ${money(high)}`;

function columnsOf(view: View, currency: string): Column[] {
  const figure = (
    id: string,
    head: string,
    width: string,
    cell: (row: number) => Plain,
  ): Column => ({
    id,
    head,
    label: head.toLowerCase(),
    width,
    align: "end",
    sortable: true,
    cell,
  });
  return [
    {
      id: "word",
      head: "Word or run of two",
      label: "word",
      width: "minmax(180px, 1fr)",
      sortable: true,
      leaves: leaf("word", (row) => view.word[row]),
      cell: (row) => <S.Word data-kind={view.kind[row]}>{view.word[row]}</S.Word>,
    },
    {
      id: "kind",
      head: "Kind",
      label: "kind",
      width: "116px",
      sortable: true,
      leaves: leaf("kind", (row) => kinds[view.kind[row] ?? "w"]),
      cell: (row) => <S.Soft>{kinds[view.kind[row] ?? "w"]}</S.Soft>,
    },
    figure("keywords", "Keywords", "82px", (row) => number(view.keywords[row])),
    figure("called", "Called", "82px", (row) => number(view.called[row])),
    figure("kept", "Kept", "64px", (row) => number(view.kept[row])),
    figure("searches", "Searches a month", roomFor(112, view.searches, number), (row) =>
      number(view.searches[row]),
    ),
    figure("price", `Price, ${currency}`, roomFor(120, view.price_high, twoPrices), (row) =>
      view.price_low[row] == null
        ? "–"
        : `${money(view.price_low[row])} – ${money(view.price_high[row])}`,
    ),
    figure("customers", "Customers at the ceiling", "112px", (row) => count(view.customers[row])),
  ];
}
