import { usePlanChange } from "../../data/usePlanChange";
import { TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { plural } from "../../parts/format";
import * as S from "./Arrange.styles";
import type { ArrangeView } from "./view";

type Props = {
  view: ArrangeView;
  ids: readonly number[];
  onChosen: (ids: ReadonlySet<number>) => void;
  onArrange: () => void;
};

/** What can be done with several groups at once. */
export function ChosenGroups({ view: { campaigns, groups }, ids, onChosen, onArrange }: Props) {
  const send = usePlanChange();
  const there = ids.filter((id) => groups.id.includes(id));
  const clear = (took: boolean) => took && onChosen(new Set());
  const move = (to: string) =>
    to !== "" &&
    void send("post", "/arrange/groups/move", { ids: there, campaign_id: Number(to) }).then(clear);
  const merge = (to: string) =>
    to !== "" &&
    void send("post", "/arrange/groups/merge", { ids: there, into: Number(to) }).then(clear);
  return (
    <S.Bar>
      {plural(there.length, "group")} selected:{" "}
      <Choice
        label="Campaign for the selected groups"
        value=""
        options={[
          { id: "", name: "move to …" },
          ...campaigns.map(({ id, name }) => ({ id: String(id), name })),
        ]}
        inline
        onChange={move}
      />
      <Choice
        label="Merge the selected groups"
        value=""
        options={[
          { id: "", name: "merge into …" },
          ...there.map((id) => ({
            id: String(id),
            name: groups.label[groups.id.indexOf(id)]!,
          })),
        ]}
        inline
        onChange={merge}
      />
      <TextButton onPress={onArrange}>arrange their keywords by …</TextButton> <kbd>b</kbd>
      <TextButton onPress={() => onChosen(new Set())}>none</TextButton>
    </S.Bar>
  );
}
