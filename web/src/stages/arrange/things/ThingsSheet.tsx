import { client, taken, uploadOf, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { Button, MainButton } from "../../../parts/Button";
import { Foot, Sheet } from "../../../parts/Sheet";
import { money, number, plural } from "../../../parts/format";
import * as A from "../Arrange.styles";
import { useFileOfRows } from "../FileOfRows";

type Props = { open: boolean; onOpen: (open: boolean) => void };

const shownRows = 200;

/** Things sold, read from a table; what was refused is said before anything is taken in. */
export const ThingsSheet = ({ open, onOpen }: Props) => (
  <Sheet title="Things sold" open={open} onOpen={onOpen} width={600}>
    <Read onDone={() => onOpen(false)} />
  </Sheet>
);

function Read({ onDone }: { onDone: () => void }) {
  const { id } = usePlan();
  const send = usePlanChange();
  const [file, chooser] = useFileOfRows((chosen) =>
    taken<Schemas["ThingsFile"]>(
      client.POST("/api/plans/{plan_id}/arrange/things/file", {
        params: { path: { plan_id: id } },
        ...uploadOf(chosen),
      }),
    ),
  );
  const things = file?.things ?? [];
  const take = () =>
    void send("post", "/arrange/things", { things }).then((took) => took && onDone());
  return (
    <>
      <p>
        A table with <i>code</i> and <i>name</i>, and where you have them <i>price</i>,{" "}
        <i>margin</i>, <i>page</i> and <i>can be delivered</i> (yes or no). A code that is there is
        changed.
      </p>
      {chooser()}
      {file && (
        <A.Lines aria-label="Things of the file">
          {file.refused.map(({ row, why }) => (
            <li key={row}>
              row {number(row)}: <A.Wrong>{why}</A.Wrong>
            </li>
          ))}
          {things.slice(0, shownRows).map((thing) => (
            <li key={thing.code}>
              {thing.code}: <span dir="auto">{thing.name}</span>{" "}
              <A.Soft>
                {thing.price != null && money(thing.price)}
                {thing.deliverable === false && " can’t be delivered"}
              </A.Soft>
            </li>
          ))}
          {things.length > shownRows && <li>… and {number(things.length - shownRows)} more</li>}
        </A.Lines>
      )}
      <Foot>
        <Button onPress={onDone}>Leave them</Button>
        <MainButton isDisabled={things.length === 0} onPress={take}>
          Take in {plural(things.length, "thing")}
        </MainButton>
      </Foot>
    </>
  );
}
