import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useViewKeys } from "../../app/useViewKeys";
import { client, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanQuery } from "../../data/usePlanQuery";
import { useSaying } from "../../data/saying";
import { Button, MainButton, TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { Small } from "../../parts/Screen";
import { Views } from "../../parts/Views";
import { number, plural } from "../../parts/format";
import { AccountFile } from "./AccountFile";
import { Changes } from "./Changes";
import { Checks } from "./Checks";
import { ClientSheet } from "./sheet/ClientSheet";
import * as S from "./HandOver.styles";
import { Practice } from "./practice/Practice";
import { Sent } from "./Sent";
import { OtherSheet } from "./OtherSheet";
import { SheetShape } from "./SheetShape";
import { UploadGrid } from "./UploadGrid";

type Kind = Schemas["HandOverRequest"]["kind"];
type Sheet = NonNullable<Schemas["HandOverRequest"]["sheets"]>[number];
type View = "client" | "upload" | "practice" | "account" | "sent";

const order: readonly View[] = ["client", "upload", "practice", "account", "sent"];
const sheets: readonly Sheet[] = ["keywords", "campaigns", "groups", "negatives", "ads", "spots"];

/** What leaves, what to look at first, and what was sent. */
export function HandOver() {
  const { id, summary, setSummary } = usePlan();
  const { say, complain } = useSaying();
  const queries = useQueryClient();
  const [view, setView] = useState<View>("upload");
  const [sheet, setSheet] = useState<Sheet>("keywords");
  const [only, setOnly] = useState<"all" | "changed">("all");
  const [shaping, setShaping] = useState(false);
  const [since, setSince] = useState<number | null>(null);
  const found = usePlanQuery("/hand-over");
  const rows = found.data?.rows ?? [];
  const counts = found.data?.counts;
  const changed = found.data?.changed;
  useViewKeys(order.length, (at) => setView(order[at]!));

  const make = async (kind: Kind, all: readonly Sheet[] = [sheet]) => {
    try {
      const body = { kind, sheets: [...all], only };
      const { made, summary: next } = await taken(
        client.POST("/api/plans/{plan_id}/hand-over", {
          params: { path: { plan_id: id } },
          body,
        }),
      );
      setSummary(next);
      await queries.invalidateQueries({ queryKey: ["/hand-over", id] });
      say(`sent and kept: ${made.files.map((file) => file.filename).join(", ")}`);
      for (const file of made.files) {
        const link = document.createElement("a");
        link.href = `/api/plans/${id}/hand-over/${made.id}/files/${file.id}`;
        link.download = file.filename;
        link.click();
      }
    } catch (error) {
      complain(error);
    }
  };
  const running = rows.filter((row) => row.bid !== null).length;
  const filled = sheets.filter((one) => (counts?.[one] ?? 0) > 0);
  const nothing = only === "all" ? rows.length === 0 : !changed;

  return (
    <S.Split>
      <Checks checks={found.data?.checks} />
      <S.Sheet>
        <S.Head>
          <h1>Hand over</h1>
          <Views
            label="What is shown"
            views={[
              { id: "client", name: "The client’s sheet" },
              { id: "upload", name: "Upload" },
              { id: "practice", name: "Practice" },
              { id: "account", name: "Your account’s file" },
              { id: "sent", name: `What was sent ${number(found.data?.sent.length ?? 0)}` },
            ]}
            view={view}
            onView={setView}
          />
          <Small>
            {plural(running, "keyword")} run, {number(rows.length - running)} kept but not run
          </Small>
        </S.Head>
        {view === "client" && <ClientSheet />}
        {view === "upload" && (
          <>
            <S.Line>
              <Choice
                label="Sheet"
                inline
                value={sheet}
                options={sheets.map((one) => ({
                  id: one,
                  name: `${one} ${number(counts?.[one] ?? 0)}`,
                }))}
                onChange={setSheet}
              />
              <Choice
                label="Which rows"
                inline
                value={only}
                options={[
                  { id: "all", name: "whole" },
                  {
                    id: "changed",
                    name: changed
                      ? `only what changed (${number(Object.values(changed).reduce((a, b) => a + b, 0))})`
                      : "only what changed",
                  },
                ]}
                onChange={setOnly}
              />
              <a
                href={`/api/plans/${id}/hand-over/look?kind=csv&sheet=${sheet}&only=${only}`}
                download
              >
                look at the file
              </a>
              <TextButton aria-expanded={shaping} onPress={() => setShaping(!shaping)}>
                columns and names
              </TextButton>
              <span>
                <MainButton isDisabled={nothing} onPress={() => void make("csv")}>
                  Send CSV
                </MainButton>
                <Button isDisabled={nothing} onPress={() => void make("csv", filled)}>
                  Send all sheets, CSV
                </Button>
                <Button isDisabled={nothing} onPress={() => void make("xlsx", filled)}>
                  Send all sheets, XLSX
                </Button>
                <Button onPress={() => void make("json")}>Send the plan, JSON</Button>
              </span>
            </S.Line>
            {shaping && found.data && <SheetShape sheet={sheet} view={found.data} />}
            {only === "changed" ? (
              <Changes since={null} />
            ) : sheet === "keywords" ? (
              <UploadGrid
                rows={rows}
                shape={found.data?.shapes.keywords ?? []}
                currency={summary.brief.values.currency}
                pending={found.isPending}
              />
            ) : (
              <OtherSheet sheet={sheet} />
            )}
          </>
        )}
        {view === "practice" && <Practice />}
        {view === "account" && <AccountFile />}
        {view === "sent" && found.data && (
          <S.Shelves>
            <Sent sent={found.data.sent} since={since} onSince={setSince} />
            {since !== null && <Changes since={since} />}
          </S.Shelves>
        )}
      </S.Sheet>
    </S.Split>
  );
}
