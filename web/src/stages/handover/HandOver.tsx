import { useState } from "react";
import { useViewKeys } from "../../app/useViewKeys";
import { usePlanQuery } from "../../data/usePlanQuery";
import { NotYet } from "../../parts/NotYet";
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
import { Upload } from "./Upload";

type View = "client" | "upload" | "practice" | "account" | "sent";

const order: readonly View[] = ["client", "upload", "practice", "account", "sent"];

/** What leaves, what to look at first, and what was sent. */
export function HandOver() {
  const [view, setView] = useState<View>("upload");
  const [since, setSince] = useState<number | null>(null);
  const found = usePlanQuery("/hand-over");
  const rows = found.data?.rows ?? [];
  useViewKeys(order.length, (at) => setView(order[at]!));

  const running = rows.filter((row) => row.bid !== null).length;

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
            {found.data
              ? `${plural(running, "keyword")} run, ${number(rows.length - running)} kept but not run`
              : ""}
            {found.error && <NotYet of={found}>{null}</NotYet>}
          </Small>
        </S.Head>
        {view === "client" && <ClientSheet />}
        {view === "upload" && <Upload view={found.data} pending={found.isPending} />}
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
