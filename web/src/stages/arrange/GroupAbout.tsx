import { type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { useAsking } from "../../app/asked";
import { Traced } from "../../parts/Traced";
import { Choice } from "../../parts/Choice";
import { A_NUMBER, count, money, number, parsed, percent, plural } from "../../parts/format";
import type { ArrangeView } from "./view";
import * as S from "./Arrange.styles";
import { OwnWay } from "./OwnWay";
import { SplitLine } from "./SplitLine";

type Props = { view: ArrangeView; at: number };

/** What a group is: its words, who fits elsewhere, where it belongs, its own bid. */
export function GroupAbout({ view, at }: Props) {
  const { groups, campaigns } = view;
  const { summary } = usePlan();
  const { ask } = useAsking();
  const send = usePlanChange();
  const group = groups.id[at]!;
  const edit = (body: Schemas["GroupEdit"]) =>
    send("post", "/arrange/groups/{group_id}", body, { group_id: group });
  const move = (to: string) =>
    void send("post", "/arrange/groups/move", { ids: [group], campaign_id: Number(to) });
  const merge = (to: string) =>
    to !== "" && void send("post", "/arrange/groups/merge", { ids: [group], into: Number(to) });
  const words = groups.words[at] ?? [];
  const bid = groups.bid[at];
  return (
    <S.About>
      <p>
        {words.length > 0 &&
          `Its main words: ${words.map(({ word, share }) => `${word} (${percent(share, 0)} of clicks)`).join(", ")}. `}
      </p>
      <p>
        <Traced onPress={() => ask({ kind: "group", id: group })}>
          {plural(groups.running[at] ?? 0, "keyword")} run{groups.running[at] === 1 && "s"},{" "}
          {count(groups.customers[at] ?? 0)} customers for {money(groups.spend[at] ?? 0)}
          {groups.likeness[at] != null && `; alike to ${percent(groups.likeness[at], 0)}`}.
        </Traced>
      </p>
      {groups.too_many[at]! > 0 && (
        <S.Wrong>
          {plural(groups.too_many[at]!, "keyword")} more than the platform takes in a group: split
          it
        </S.Wrong>
      )}
      {groups.kept[at] === 1 && <S.Straw>a keyword alone</S.Straw>}
      <Misfits misfits={groups.least_like[at] ?? []} />
      <S.Line>
        <Choice
          label="Campaign of the group"
          value={String(groups.campaign_id[at])}
          options={campaigns.map((one) => ({ id: String(one.id), name: `in ${one.name}` }))}
          inline
          onChange={move}
        />
        <Choice
          label="Merge the group into another"
          value=""
          options={[
            { id: "", name: "merge into …" },
            ...groups.id.flatMap((one, row) =>
              one === group ? [] : [{ id: String(one), name: groups.label[row]! }],
            ),
          ]}
          inline
          onChange={merge}
        />
        <SplitLine group={group} />
      </S.Line>
      <span>
        bids{" "}
        <Blank
          label="Bid of the group"
          value={bid == null ? "" : number(bid, 2)}
          placeholder="as fitted"
          onCommit={(text) => {
            if (text.trim() === "") return edit({ bid: null });
            const price = parsed(text);
            return price === null ? A_NUMBER : edit({ bid: price });
          }}
        />{" "}
        {bid != null && `${summary.brief.values.currency}, but for keywords with their own`}
      </span>
      {bid == null && (
        <span>
          its bids are{" "}
          <OwnWay
            of="the group"
            policy={groups.policy[at] ?? null}
            otherwise="as its campaign’s"
            onPut={(policy) => edit({ policy })}
          />
        </span>
      )}
      <span>
        <TextButton onPress={() => void edit({ locked: !groups.locked[at] })}>
          {groups.locked[at] ? "unlock it" : "lock it against ready structures"}
        </TextButton>
      </span>
    </S.About>
  );
}

function Misfits({ misfits }: { misfits: ArrangeView["groups"]["least_like"][number] }) {
  const send = usePlanChange();
  if (misfits.length === 0) return null;
  return (
    <p>
      Would fit better elsewhere:{" "}
      {misfits.map((one) => (
        <S.Together key={one.id}>
          <bdi>{one.text}</bdi>{" "}
          <TextButton
            onPress={() =>
              void send("post", "/arrange/move", {
                ids: [one.id],
                group_id: one.group_id,
                group: "",
              })
            }
          >
            to {one.group}
          </TextButton>
        </S.Together>
      ))}
    </p>
  );
}
