import { useEffect, useMemo, useRef, useState } from "react";
import { ToggleButton } from "react-aria-components";
import { useNavigate } from "react-router";
import { useKeys } from "../../app/keys";
import { client, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { endJob, jobHeader, newJob } from "../../data/progress";
import { useSaying } from "../../data/saying";
import { Button, MainButton } from "../../parts/Button";
import { Grid, type GridHandle } from "../../parts/Grid";
import { Small } from "../../parts/Screen";
import { Working } from "../../parts/Working";
import { number, plural } from "../../parts/format";
import { ColumnTable } from "./ColumnTable";
import type { Tray } from "./tray";
import * as S from "./Gather.styles";
import * as T from "./Tray.styles";
import { TrayHint } from "./TrayHint";
import { TrayUnits } from "./TrayUnits";
import { changedColumns, refusedColumns, takenColumns } from "./trayColumns";
import { useVerdicts } from "./useVerdicts";
import type { Near, Part } from "./tray";

const parts: { id: Part; name: string }[] = [
  { id: "new", name: "new" },
  { id: "near", name: "alike another" },
  { id: "caught", name: "never wanted" },
  { id: "changed", name: "new figures" },
  { id: "there", name: "already there" },
  { id: "cleaned", name: "cleaned" },
  { id: "refused", name: "refused" },
];

type Props = {
  tray: Tray;
  onTray: (tray: Tray | null) => void;
  /** Asks the source for its next page. */
  more?: () => Promise<Tray>;
  onMore: (tray: Tray) => void;
};

/** One file on its way in, sorted by what would become of each row. */
export function TrayView({ tray, onTray, more, onMore }: Props) {
  const { id } = usePlan();
  const { complain } = useSaying();
  const counts = useMemo(() => countsOf(tray), [tray]);
  const [part, setPart] = useState<Part>(() => parts.find((p) => counts[p.id])?.id ?? "new");
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const [near, setNear] = useState<Near>("leave");
  const [caught, setCaught] = useState(false);
  const verdicts = useVerdicts(tray);
  const grid = useRef<GridHandle>(null);
  const assign = useAssign(tray, onTray);
  const bring =
    counts.new +
    counts.changed +
    (near === "leave" ? 0 : counts.near) +
    (caught ? counts.caught : 0);

  const rows = useMemo(() => rowsOf(tray, part), [tray, part]);
  const columns = useMemo(() => {
    if (part === "refused") return refusedColumns(tray);
    if (part === "changed") return changedColumns(tray, verdicts.of);
    return takenColumns(tray, part);
  }, [tray, part, verdicts.of]);
  useEffect(() => grid.current?.focus(), [tray.key]);

  const { job, take } = useTake(tray, bring, { near, caught, ...verdicts.body }, () =>
    onTray(null),
  );
  const leave = useLeave(tray, () => onTray(null));
  const judged = selected.size > 0 ? [...selected].filter((row) => rows.includes(row)) : rows;
  useKeys({
    Enter: () => void take(),
    ...(part === "changed" && {
      t: () => verdicts.set(judged, "take"),
      k: () => verdicts.set(judged, "keep"),
      m: () => verdicts.set(judged, "mean"),
    }),
  });

  if (job && bring > 2000)
    return (
      <T.Tray aria-label="Tray">
        <Working what={`Taking in ${number(bring)}`} job={job} />
      </T.Tray>
    );
  return (
    <T.Tray aria-label="Tray">
      <TrayTop
        tray={tray}
        bring={bring}
        busy={job !== null}
        onTake={() => void take()}
        onMore={more && (() => void more().then(onMore).catch(complain))}
        onLeave={() => void leave()}
      />
      {tray.sample.length > 0 && (
        <>
          <TrayUnits tray={tray} onAssign={assign} />
          <ColumnTable
            tray={tray}
            onAssign={(columns, first_row) => void assign({ columns, first_row })}
          />
        </>
      )}
      <TrayParts
        part={part}
        counts={counts}
        onPart={(next) => {
          setPart(next);
          setSelected(new Set());
        }}
      />
      {counts[part] > 0 && (
        <TrayHint
          part={part}
          near={near}
          onNear={setNear}
          caught={caught}
          onCaught={setCaught}
          judged={selected.size > 0 ? judged.length : null}
          onVerdict={(verdict) => verdicts.set(judged, verdict)}
          refusedFile={
            tray.sample.length > 0 ? `/api/plans/${id}/gather/${tray.key}/refused.csv` : null
          }
        />
      )}
      <Grid
        label={`Rows: ${parts.find((p) => p.id === part)?.name ?? ""}`}
        handle={grid}
        columns={columns}
        rows={rows}
        idOf={(row) => row}
        active={active}
        onActive={setActive}
        selected={selected}
        onSelected={setSelected}
        onEnter={() => void take()}
        empty={
          part === "refused"
            ? "No row was refused."
            : `None of the ${plural(tray.rows.row.length, "row")} is of this kind.`
        }
      />
    </T.Tray>
  );
}

/** Says what the columns of the file hold; the server sorts its rows anew. */
function useAssign(tray: Tray, onTray: (tray: Tray) => void) {
  const { id } = usePlan();
  const { complain } = useSaying();
  const path = { params: { path: { plan_id: id, key: tray.key } } };
  // all that was said stays said, whatever of it changes
  const { columns, first_row, sheet, period, basis, area, price, shown_at_bid, price_rate } = tray;
  const said = { columns, first_row, sheet, period, basis, area, price, shown_at_bid, price_rate };
  return async (some: Partial<Schemas["ColumnChoice"]>) => {
    const body = { ...said, ...some };
    try {
      onTray(
        await taken(client.PUT("/api/plans/{plan_id}/gather/{key}/columns", { ...path, body })),
      );
    } catch (error) {
      complain(error);
    }
  };
}

/** Takes the file in, with what was decided of its rows; then the sheet is opened. */
function useTake(tray: Tray, bring: number, body: Schemas["TakeChoice"], onDone: () => void) {
  const { id, change } = usePlan();
  const navigate = useNavigate();
  const [job, setJob] = useState<string | null>(null);
  const path = { params: { path: { plan_id: id, key: tray.key } } };
  const take = async () => {
    if (bring === 0 || job) return;
    const name = newJob();
    setJob(name);
    const took = await change(() =>
      taken(
        client.POST("/api/plans/{plan_id}/gather/{key}/take", {
          ...path,
          ...jobHeader(name),
          body,
        }),
      ),
    );
    endJob(name);
    setJob(null);
    if (!took) return;
    onDone();
    await navigate(`/plan/${id}/sift`);
  };
  return { job, take };
}

/** Leaves the file where it is: nothing of it is taken. */
function useLeave({ key }: Tray, onDone: () => void) {
  const { id } = usePlan();
  const { complain } = useSaying();
  return async () => {
    try {
      const path = { params: { path: { plan_id: id, key } } };
      await taken(client.DELETE("/api/plans/{plan_id}/gather/{key}", path));
    } catch (error) {
      complain(error);
    }
    onDone();
  };
}

type TopProps = {
  tray: Tray;
  bring: number;
  busy: boolean;
  onTake: () => void;
  onMore?: () => void;
  onLeave: () => void;
};

function TrayTop({ tray, bring, busy, onTake, onMore, onLeave }: TopProps) {
  const encoding = tray.encoding === "text" ? "" : `${tray.encoding}, `;
  return (
    <T.TrayHead>
      <h2>{tray.name}</h2>
      <Small>
        {tray.quota_left != null && `simulated; ${number(tray.quota_left)} look-ups left`}
        {tray.separator && `${encoding}${tray.separator} between cells, decimal ${tray.decimal}`}
      </Small>
      <span>
        <MainButton isDisabled={bring === 0 || busy} onPress={onTake}>
          Take in {number(bring)} <kbd>Enter</kbd>
        </MainButton>
        {onMore && <Button onPress={onMore}>Next page</Button>}
        <Button onPress={onLeave}>Leave</Button>
      </span>
    </T.TrayHead>
  );
}

type PartsProps = { part: Part; counts: Record<Part, number>; onPart: (part: Part) => void };

function TrayParts({ part, counts, onPart }: PartsProps) {
  return (
    <S.Parts
      aria-label="Rows of the file"
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[part]}
      onSelectionChange={(keys) => onPart([...keys][0] as Part)}
    >
      {parts.map((p) => (
        <ToggleButton key={p.id} id={p.id}>
          <b>{number(counts[p.id])}</b> {p.name}
        </ToggleButton>
      ))}
    </S.Parts>
  );
}

function countsOf(tray: Tray): Record<Part, number> {
  const of = (part: string) => tray.counts[part] ?? 0;
  return {
    new: of("new"),
    near: of("near"),
    caught: of("caught"),
    changed: of("changed"),
    there: of("there"),
    cleaned: Object.keys(tray.cleaned).length,
    refused: of("refused"),
  };
}

function rowsOf(tray: Tray, part: Part): number[] {
  if (part === "refused") return tray.refused.map((_, row) => row);
  if (part === "cleaned") return Object.keys(tray.cleaned).map(Number);
  return tray.rows.status.flatMap((status, row) => (status === part ? [row] : []));
}
