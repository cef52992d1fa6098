import { client, taken, uploadOf, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { Button, MainButton } from "../../../parts/Button";
import { Foot, Sheet } from "../../../parts/Sheet";
import { number, plural } from "../../../parts/format";
import * as A from "../Arrange.styles";
import { useFileOfRows } from "../FileOfRows";

type Props = { open: boolean; onOpen: (open: boolean) => void };

const shownRows = 200;

/** Ads read from a table: what would become of each row, before any is taken in. */
export const AdsFileSheet = ({ open, onOpen }: Props) => (
  <Sheet title="Ads from a file" open={open} onOpen={onOpen} width={640}>
    <Read onDone={() => onOpen(false)} />
  </Sheet>
);

function Read({ onDone }: { onDone: () => void }) {
  const { id } = usePlan();
  const send = usePlanChange();
  const [file, chooser] = useFileOfRows((chosen) =>
    taken<Schemas["AdsFile"]>(
      client.POST("/api/plans/{plan_id}/arrange/ads/file", {
        params: { path: { plan_id: id } },
        ...uploadOf(chosen),
      }),
    ),
  );
  const rows = file?.rows ?? [];
  const good = rows.filter(({ refused, same }) => !refused && !same);
  const take = () =>
    void send("post", "/arrange/ads/bring", { rows: good }).then((took) => took && onDone());
  return (
    <>
      <p>
        A table with a column for each headline and description, the group and its campaign. With a{" "}
        <i>ref</i> an ad is written anew; without one it is a new ad.
      </p>
      {chooser(file && <A.Soft>{file.name}</A.Soft>)}
      {rows.length > 0 && (
        <A.Lines aria-label="Rows of the file">
          {rows.slice(0, shownRows).map((row) => (
            <li key={row.row}>
              row {number(row.row)}, {row.group || "no group"}: {fate(row)}{" "}
              {row.refused && <A.Wrong>{row.refused}</A.Wrong>}{" "}
              <A.Soft dir="auto">{row.headlines?.join(" · ")}</A.Soft>
            </li>
          ))}
          {rows.length > shownRows && <li>… and {number(rows.length - shownRows)} more</li>}
        </A.Lines>
      )}
      <Foot>
        <Button onPress={onDone}>Leave it</Button>
        <MainButton isDisabled={good.length === 0} onPress={take}>
          Take in {plural(good.length, "ad")}
        </MainButton>
      </Foot>
    </>
  );
}

function fate({ refused, same, ad_id }: Schemas["AdFileRow"]): string {
  if (refused) return "";
  if (same) return "is there already";
  return ad_id === null ? "a new ad" : "written anew";
}
