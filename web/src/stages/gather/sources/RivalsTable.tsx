import { useMemo, useState } from "react";
import { ToggleButton } from "react-aria-components";
import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { MainButton } from "../../../parts/Button";
import { Grid, type Column } from "../../../parts/Grid";
import { leaf } from "../../../parts/shownList";
import { Small } from "../../../parts/Screen";
import { count, money, number, plural } from "../../../parts/format";
import * as S from "../Gather.styles";

type Rivals = Schemas["RivalsView"];
type Part = "they" | "both" | "ads";
type Props = { view: Rivals; busy: boolean; onTake: (texts: string[]) => void };

/** What rivals buy by keyword, or by the ad it is shown with. */
export function RivalsTable({ view, busy, onTake }: Props) {
  const { currency } = usePlan().frame.brief.values;
  const [part, setPart] = useState<Part>("they");
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const rows = useMemo(() => rowsOf(view, part), [view, part]);
  const columns = useMemo(
    () => (part === "ads" ? adColumns(view, currency) : keywordColumns(view, currency)),
    [view, part, currency],
  );
  const texts = useMemo(
    () => textsOf(view, part, selected.size > 0 ? [...selected] : rows),
    [view, part, selected, rows],
  );
  const take = () => texts.length > 0 && !busy && onTake(texts);
  return (
    <>
      <S.Line>
        <S.Parts
          aria-label="Who buys them"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[part]}
          onSelectionChange={(keys) => {
            setPart([...keys][0] as Part);
            setSelected(new Set());
            setActive(null);
          }}
        >
          <ToggleButton id="they">
            <b>{number(view.only_they)}</b> only they buy
          </ToggleButton>
          <ToggleButton id="both">
            <b>{number(view.both)}</b> both buy
          </ToggleButton>
          <ToggleButton id="ads">
            <b>{number(view.ads.length)}</b> by ad
          </ToggleButton>
        </S.Parts>
        <Small>
          {plural(view.only_we, "keyword")} only we buy. What theirs would bring is worked out with
          the almanac&rsquo;s simulated figures.
        </Small>
        {part !== "both" && (
          <MainButton isDisabled={!texts.length || busy} onPress={take}>
            Put {number(texts.length)} into the tray <kbd>Enter</kbd>
          </MainButton>
        )}
      </S.Line>
      <Since changes={view.changes} />
      <Grid
        key={part}
        label={part === "ads" ? "Rivals' ads" : "Rivals' keywords"}
        columns={columns}
        rows={rows}
        idOf={(row) => row}
        active={active}
        onActive={setActive}
        selected={selected}
        onSelected={setSelected}
        onEnter={part === "both" ? undefined : take}
        empty={part === "ads" ? "The list holds no ad texts." : "No keyword is of this kind."}
      />
    </>
  );
}

function Since({ changes }: Pick<Rivals, "changes">) {
  const some = changes.filter((c) => c.new.length + c.given_up.length > 0);
  if (some.length === 0) return null;
  return (
    <Small>
      Since the list before:{" "}
      {some
        .map(
          (c) =>
            `${c.rival} began ${number(c.new.length)} and gave up ${number(c.given_up.length)}`,
        )
        .join("; ")}
      .
    </Small>
  );
}

function rowsOf(view: Rivals, part: Part): number[] {
  if (part === "ads") return view.ads.map((_, at) => at);
  return view.rows.flatMap((row, at) => (row.ours === (part === "both") ? [at] : []));
}

/** Only-they keywords of the chosen rows, or of the chosen ads. */
function textsOf(view: Rivals, part: Part, chosen: readonly number[]): string[] {
  if (part !== "ads") return chosen.map((at) => view.rows[at]?.text ?? "");
  const shownFor = new Set(chosen.flatMap((at) => view.ads[at]?.keywords ?? []));
  return view.rows.filter((row) => !row.ours && shownFor.has(row.text)).map((row) => row.text);
}

type Seen = {
  rivals: string[];
  days: number | null;
  running: boolean;
  monthly_cost: number | null;
};

/** How long, by whom, for how much: the same for a keyword and for an ad. */
function seenColumns(seen: readonly Seen[], currency: string): Column[] {
  return [
    {
      id: "rivals",
      head: "Rivals",
      label: "rivals",
      width: "minmax(120px, 0.6fr)",
      cell: (r) => seen[r]?.rivals.join(", "),
    },
    {
      id: "days",
      head: "Days seen",
      label: "days seen",
      width: "84px",
      align: "end",
      cell: (r) => (seen[r]?.days == null ? "–" : number(seen[r]?.days)),
    },
    {
      id: "running",
      head: "Running",
      label: "still running",
      width: "72px",
      cell: (r) => (seen[r]?.running ? "yes" : "ended"),
    },
    {
      id: "cost",
      head: <>{currency} a&nbsp;month</>,
      label: "estimated cost a month",
      width: "96px",
      align: "end",
      cell: (r) => money(seen[r]?.monthly_cost),
    },
  ];
}

function keywordColumns({ rows }: Rivals, currency: string): Column[] {
  return [
    {
      id: "text",
      head: "Keyword",
      label: "keyword",
      width: "minmax(200px, 1fr)",
      cell: (r) => rows[r]?.text,
    },
    {
      id: "brings",
      head: (
        <>
          Customers
          <br />
          <i>would bring</i>
        </>
      ),
      label: "customers a month it would bring",
      width: "92px",
      align: "end",
      leaves: leaf("customers a month it would bring", (r) => rows[r]?.would_bring),
      cell: (r) => (rows[r]?.would_bring == null ? "" : <i>{count(rows[r]?.would_bring)}</i>),
    },
    ...seenColumns(rows, currency),
    {
      id: "ad",
      head: "Ad",
      label: "ad",
      width: "minmax(120px, 0.7fr)",
      cell: (r) => rows[r]?.ads.join(" · "),
    },
  ];
}

function adColumns({ ads }: Rivals, currency: string): Column[] {
  return [
    {
      id: "text",
      head: "Ad",
      label: "ad",
      width: "minmax(220px, 1fr)",
      cell: (r) => ads[r]?.text,
    },
    ...seenColumns(ads, currency),
    {
      id: "count",
      head: "Keywords",
      label: "keywords",
      width: "84px",
      align: "end",
      cell: (r) => number(ads[r]?.keywords.length),
    },
    {
      id: "keywords",
      head: "Shown for",
      label: "shown for",
      width: "minmax(160px, 1fr)",
      cell: (r) => ads[r]?.keywords.join(" · "),
    },
  ];
}
