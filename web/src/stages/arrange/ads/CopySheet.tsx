import { useState } from "react";
import { usePlanChange } from "../../../data/usePlanChange";
import { Button, MainButton, TextButton } from "../../../parts/Button";
import { Foot, Sheet } from "../../../parts/Sheet";
import { plural } from "../../../parts/format";
import * as A from "../Arrange.styles";
import type { Groups } from "../view";

type Props = {
  open: boolean;
  onOpen: (open: boolean) => void;
  ad: number;
  from: number;
  groups: Groups;
};

/** Which groups get an ad too, the words of its own exchanged for theirs. */
export const CopySheet = ({ open, onOpen, ...rest }: Props) => (
  <Sheet title="Copy the ad" open={open} onOpen={onOpen} width={480}>
    <Copy {...rest} onDone={() => onOpen(false)} />
  </Sheet>
);

function Copy({
  ad,
  from,
  groups,
  onDone,
}: Omit<Props, "open" | "onOpen"> & { onDone: () => void }) {
  const send = usePlanChange();
  const rows = groups.id.flatMap((id, row) => (id !== from && groups.kept[row]! > 0 ? [row] : []));
  const bare = rows.filter((row) => groups.without_ad[row]).map((row) => groups.id[row]!);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const toggle = (id: number) => {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    setChosen(next);
  };
  const go = () =>
    void send("post", "/arrange/ads/copy", { ad_id: ad, group_ids: [...chosen] }).then(
      (took) => took && onDone(),
    );
  return (
    <>
      <p>Main words of its own group are exchanged for those of the other; read it again there.</p>
      <A.Lines aria-label="Groups">
        {rows.map((row) => {
          const id = groups.id[row]!;
          return (
            <li key={id}>
              <label>
                <input type="checkbox" checked={chosen.has(id)} onChange={() => toggle(id)} />{" "}
                {groups.label[row]}{" "}
                <A.Soft>{groups.without_ad[row] ? "no ad" : plural(groups.ads[row]!, "ad")}</A.Soft>
              </label>
            </li>
          );
        })}
      </A.Lines>
      {bare.length > 0 && (
        <TextButton onPress={() => setChosen(new Set(bare))}>
          choose the {plural(bare.length, "group")} without an ad
        </TextButton>
      )}
      <Foot>
        <Button onPress={onDone}>Leave it</Button>
        <MainButton isDisabled={chosen.size === 0} onPress={go}>
          Copy to {plural(chosen.size, "group")}
        </MainButton>
      </Foot>
    </>
  );
}
