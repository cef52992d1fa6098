import { useCallback, useMemo, useState } from "react";
import { ToggleButton } from "react-aria-components";
import { usePlan } from "../../../../data/plan";
import { MainButton } from "../../../../parts/Button";
import { Choice } from "../../../../parts/Choice";
import type { Sort } from "../../../../parts/column";
import { Grid } from "../../../../parts/Grid";
import { Small } from "../../../../parts/Screen";
import { number, plural } from "../../../../parts/format";
import { useMarked } from "../../../../parts/useMarked";
import * as S from "../../Gather.styles";
import { Shared } from "./Shared";
import { rivalColumns } from "./columns";
import { columnsOf, ordered, rowsOf, textsOf, type Part, type Rivals } from "./rows";

type Props = {
  view: Rivals;
  busy: boolean;
  onTake: (texts: string[]) => void;
  onRival: (rival: string | null) => void;
};

const everyone = "";
const called: Record<Part, string> = {
  they: "Rivals' keywords",
  both: "Keywords both buy",
  ads: "Rivals' ads",
  rivals: "Rivals in sum",
};

/** What rivals buy: by keyword, by the ad it is shown with, and each rival in sum. */
export function RivalsTable({ view, busy, onTake, onRival }: Props) {
  const { currency } = usePlan().summary.brief.values;
  const [part, setPart] = useState<Part>("they");
  const [words, setWords] = useState("");
  const [sort, setSort] = useState<Sort | null>(null);
  const columns = useMemo(() => rivalColumns(view, part, currency), [view, part, currency]);
  const rows = useMemo(() => {
    const by = columns.find((column) => column.id === sort?.by);
    return ordered(rowsOf(view, part, words), by ? sort : null, by?.value ?? (() => null));
  }, [view, part, words, columns, sort]);
  const keyOf = useCallback((row: number) => columnsOf(view, part).name[row]!, [view, part]);
  const { active, setActive, selected, setSelected, clear } = useMarked(rows, keyOf);
  const texts = useMemo(() => {
    const chosen = [...selected];
    return textsOf(view, part, chosen.length > 0 ? chosen : rows);
  }, [view, part, selected, rows]);
  const takes = part === "they" || part === "ads";
  const take = () => takes && texts.length > 0 && !busy && onTake(texts);
  return (
    <>
      <S.Line>
        <Parts
          view={view}
          part={part}
          onPart={(next) => {
            setPart(next);
            clear();
          }}
        />
        {takes && (
          <MainButton isDisabled={!texts.length || busy} onPress={take}>
            Put {number(texts.length)} into the tray <kbd>Enter</kbd>
          </MainButton>
        )}
      </S.Line>
      <S.Line>
        <input
          aria-label="Words in, -words out"
          placeholder="words in, -words out"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
        <Choice
          label="Whose"
          value={view.of ?? everyone}
          options={[
            { id: everyone, name: "all rivals" },
            ...view.rivals.map((rival) => ({ id: rival, name: rival })),
          ]}
          onChange={(rival) => {
            clear();
            onRival(rival === everyone ? null : rival);
          }}
        />
        <Small>
          {view.keywords.unknown_why ||
            `${plural(view.only_we, "keyword")} only we buy. What theirs would bring is worked out with the almanac’s simulated figures.`}
        </Small>
      </S.Line>
      <Since changes={view.changes} />
      {part === "rivals" && <Shared shared={view.shared} of={view.rivals.length} />}
      <Grid
        key={part}
        label={called[part]}
        columns={columns}
        rows={rows}
        idOf={(row) => row}
        active={active}
        onActive={setActive}
        selected={selected}
        onSelected={setSelected}
        sort={sort}
        onSort={setSort}
        onEnter={takes ? take : undefined}
        empty={words ? "No name holds these words." : emptySaid[part]}
      />
    </>
  );
}

const emptySaid: Record<Part, string> = {
  they: "They buy nothing that isn’t ours too.",
  both: "None of theirs is kept in this plan.",
  ads: "The list holds no ad texts.",
  rivals: "The list names no rival.",
};

function Parts({ view, part, onPart }: Pick<Props, "view"> & PartsOn) {
  return (
    <S.Parts
      aria-label="Who buys them"
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[part]}
      onSelectionChange={(keys) => onPart([...keys][0] as Part)}
    >
      <ToggleButton id="they">
        <b>{number(view.only_they)}</b> only they buy
      </ToggleButton>
      <ToggleButton id="both">
        <b>{number(view.both)}</b> both buy
      </ToggleButton>
      <ToggleButton id="ads">
        <b>{number(view.ads.name.length)}</b> by ad
      </ToggleButton>
      <ToggleButton id="rivals">
        <b>{number(view.rivals.length)}</b> by rival
      </ToggleButton>
    </S.Parts>
  );
}

type PartsOn = { part: Part; onPart: (part: Part) => void };

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
