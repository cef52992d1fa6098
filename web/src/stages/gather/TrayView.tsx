import { useEffect, useMemo, useRef, useState } from "react";
import { ToggleButton } from "react-aria-components";
import { useNavigate } from "react-router";
import { useKeys } from "../../app/keys";
import { client, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import { Blank } from "../../parts/Blank";
import { Button, MainButton, TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { Grid, type GridHandle } from "../../parts/Grid";
import { Small } from "../../parts/Screen";
import { number, plural } from "../../parts/format";
import { ColumnTable } from "./ColumnTable";
import type { Tray } from "./Gather";
import * as S from "./Gather.styles";
import { refusedColumns, takenColumns } from "./trayColumns";

type Part = "new" | "near" | "caught" | "changed" | "there" | "refused";

const parts: { id: Part; name: string }[] = [
  { id: "new", name: "new" },
  { id: "near", name: "alike another" },
  { id: "caught", name: "never wanted" },
  { id: "changed", name: "new figures" },
  { id: "there", name: "already there" },
  { id: "refused", name: "refused" },
];

type Props = {
  tray: Tray;
  onTray: (tray: Tray | null) => void;
  /** Asks the source for its next page. */
  more?: () => Promise<Tray>;
  onMore: (tray: Tray) => void;
};

const periods = [
  { id: "month", name: "a month" },
  { id: "day", name: "a day", about: "Brought to a month of 365/12 days." },
] as const;
const bases = [
  { id: "", name: "as the brief says" },
  { id: "exact", name: "the very text" },
  { id: "phrase", name: "the text within longer ones" },
  { id: "broad", name: "anything close to it" },
] as const;

/** One file on its way in, sorted by what would become of each row. */
export function TrayView({ tray, onTray, more, onMore }: Props) {
  const { id, change } = usePlan();
  const { complain } = useSaying();
  const navigate = useNavigate();
  const [part, setPart] = useState<Part>(() => parts.find((p) => tray.counts[p.id])?.id ?? "new");
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const [near, setNear] = useState(false);
  const [caught, setCaught] = useState(false);
  const grid = useRef<GridHandle>(null);
  const path = { params: { path: { plan_id: id, key: tray.key } } };
  const { counts } = tray;
  const bring =
    (counts.new ?? 0) +
    (counts.changed ?? 0) +
    (near ? (counts.near ?? 0) : 0) +
    (caught ? (counts.caught ?? 0) : 0);

  const rows = useMemo(() => rowsOf(tray, part), [tray, part]);
  const columns = useMemo(
    () => (part === "refused" ? refusedColumns(tray) : takenColumns(tray, part === "near")),
    [tray, part],
  );
  useEffect(() => grid.current?.focus(), [tray.key]);

  const take = async () => {
    if (bring === 0) return;
    const body = { near, caught };
    if (
      await change(() =>
        taken(client.POST("/api/plans/{plan_id}/gather/{key}/take", { ...path, body })),
      )
    ) {
      onTray(null);
      await navigate(`/plan/${id}/sift`);
    }
  };
  const leave = async () => {
    try {
      await taken(client.DELETE("/api/plans/{plan_id}/gather/{key}", path));
    } catch (error) {
      complain(error);
    }
    onTray(null);
  };
  const assign = async (some: Partial<Schemas["ColumnChoice"]>) => {
    const { columns: held, first_row, sheet, period, basis, area } = tray;
    try {
      onTray(
        await taken(
          client.PUT("/api/plans/{plan_id}/gather/{key}/columns", {
            ...path,
            body: { columns: held, first_row, sheet, period, basis, area, ...some },
          }),
        ),
      );
    } catch (error) {
      complain(error);
    }
  };
  useKeys({ Enter: () => void take() });

  return (
    <S.Tray aria-label="Tray">
      <S.TrayHead>
        <h2>{tray.name}</h2>
        <Small>
          {tray.quota_left != null && `simulated; ${number(tray.quota_left)} look-ups left`}
          {tray.separator &&
            `${tray.encoding === "text" ? "" : `${tray.encoding}, `}${tray.separator} between cells, decimal ${tray.decimal}`}
        </Small>
        <span>
          <MainButton isDisabled={bring === 0} onPress={() => void take()}>
            Take in {number(bring)} <kbd>Enter</kbd>
          </MainButton>
          {more && (
            <Button onPress={() => void more().then(onMore).catch(complain)}>Next page</Button>
          )}
          <Button onPress={() => void leave()}>Leave</Button>
        </span>
      </S.TrayHead>
      {tray.sample.length > 0 && (
        <>
          <S.Units>
            {tray.sheets.length > 1 && (
              <Choice
                label="Sheet"
                value={tray.sheet}
                options={tray.sheets.map((name) => ({ id: name, name }))}
                onChange={(sheet) => void assign({ sheet })}
              />
            )}
            Volumes are searches
            <Choice
              label="Volumes are for"
              value={tray.period}
              options={periods}
              onChange={(period) => void assign({ period })}
            />
            and count
            <Choice
              label="Volumes count"
              value={tray.basis}
              options={bases}
              onChange={(basis) => void assign({ basis })}
            />
            for
            <Blank
              label="Area the volumes count"
              value={tray.area}
              placeholder="the counted area"
              onCommit={(area) => assign({ area }).then(() => true)}
            />
          </S.Units>
          <ColumnTable
            tray={tray}
            onAssign={(columns, first_row) => void assign({ columns, first_row })}
          />
        </>
      )}
      <S.Parts
        aria-label="Rows of the file"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[part]}
        onSelectionChange={(keys) => setPart([...keys][0] as Part)}
      >
        {parts.map((p) => (
          <ToggleButton key={p.id} id={p.id}>
            <b>{number(tray.counts[p.id])}</b> {p.name}
          </ToggleButton>
        ))}
      </S.Parts>
      {part === "near" && (counts.near ?? 0) > 0 && (
        <S.Units>
          The same words in another order, form or accent. They are left out unless you say so:
          <TextButton onPress={() => setNear(!near)}>
            {near ? "leave them out" : "take them in too"}
          </TextButton>
        </S.Units>
      )}
      {part === "caught" && (counts.caught ?? 0) > 0 && (
        <S.Units>
          A word that is never wanted stands in these. They are left out unless you say so:
          <TextButton onPress={() => setCaught(!caught)}>
            {caught ? "leave them out" : "take them in, dropped"}
          </TextButton>
        </S.Units>
      )}
      {part === "refused" && tray.refused.length > 0 && tray.sample.length > 0 && (
        <S.Units>
          <a href={`/api/plans/${id}/gather/${tray.key}/refused.csv`} download>
            Save the refused rows as a CSV
          </a>
          to mend them and bring them back.
        </S.Units>
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
    </S.Tray>
  );
}

function rowsOf(tray: Tray, part: Part): number[] {
  if (part === "refused") return tray.refused.map((_, row) => row);
  return tray.rows.status.flatMap((status, row) => (status === part ? [row] : []));
}
