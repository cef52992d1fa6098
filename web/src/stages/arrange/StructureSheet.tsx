import { useState } from "react";
import { type Schemas } from "../../data/client";
import { usePlanChange } from "../../data/usePlanChange";
import { usePlanQuery } from "../../data/usePlanQuery";
import { Button, MainButton } from "../../parts/Button";
import { Foot, Sheet } from "../../parts/Sheet";
import { number, plural } from "../../parts/format";
import * as S from "./Arrange.styles";

type Item = Schemas["StructureItem"];
type Props = { open: boolean; onOpen: (open: boolean) => void };

/** Ready structures, each with what it would change before it does. */
export function StructureSheet({ open, onOpen }: Props) {
  return (
    <Sheet title="Arrange the kept keywords by" open={open} onOpen={onOpen} width={560}>
      <Structures onDone={() => onOpen(false)} />
    </Sheet>
  );
}

function Structures({ onDone }: { onDone: () => void }) {
  const send = usePlanChange();
  const [kind, setKind] = useState<Item["kind"]>("theme");
  const query = usePlanQuery("/arrange/structures");
  const take = () =>
    void send("post", "/arrange/structure", { kind }).then((took) => took && onDone());
  const picked = query.data?.find((item) => item.kind === kind);
  const changes = picked !== undefined && picked.moves + picked.adds > 0;
  return (
    <>
      <S.Ways role="radiogroup" aria-label="Structure">
        {query.data?.map((item) => (
          <label key={item.kind}>
            <input
              type="radio"
              name="structure"
              // eslint-disable-next-line jsx-a11y/no-autofocus -- the planner just opened it
              autoFocus={item.kind === kind}
              checked={item.kind === kind}
              onChange={() => setKind(item.kind)}
              onKeyDown={(event) => event.key === "Enter" && changes && take()}
            />
            <span>{item.says}</span>
            <small>{outcome(item)}</small>
          </label>
        ))}
      </S.Ways>
      <Foot>
        <Button onPress={onDone}>Leave them</Button>
        <MainButton isDisabled={!changes} onPress={take}>
          Arrange them <kbd>Enter</kbd>
        </MainButton>
      </Foot>
    </>
  );
}

function outcome({ groups, campaigns, moves, adds }: Item): string {
  if (moves === 0 && adds === 0) return "as they are arranged now";
  const where = `${plural(groups, "group")} in ${campaigns.length > 3 ? plural(campaigns.length, "campaign") : campaigns.join(", ")}`;
  const added = adds > 0 ? `, ${number(adds)} added as phrase match` : "";
  return `${where}; ${plural(moves, "keyword")} would move${added}`;
}
