import { type Schemas } from "../../data/client";
import { usePlanChange } from "../../data/usePlanChange";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { percent, plural } from "../../parts/format";
import type { ArrangeView } from "./view";
import * as S from "./Arrange.styles";
import { GroupKeywords } from "./GroupKeywords";

type Props = { view: ArrangeView; at: number };

/** One group: its name, the page its ads lead to, and who is in it, to be moved elsewhere. */
export function GroupDetail({ view, at }: Props) {
  const { groups, campaigns } = view;
  const send = usePlanChange();
  const name = groups.name[at]!;
  const group = groups.id[at]!;
  const edit = (body: Schemas["GroupEdit"]) =>
    send("post", "/arrange/groups/{group_id}", body, { group_id: group });
  const words = groups.words[at] ?? [];
  const misfits = groups.least_like[at] ?? [];
  return (
    <>
      <S.About>
        <h2>
          <Blank label="Name of the group" value={name} onCommit={(text) => edit({ name: text })} />
        </h2>
        <span>
          Its ads lead to{" "}
          <Blank
            label="Landing page"
            value={groups.page[at] ?? ""}
            placeholder="a page of the site"
            onCommit={(text) => edit({ page: text })}
          />
        </span>
        <p>
          {words.length > 0 &&
            `Its main words: ${words.map(({ word, share }) => `${word} (${percent(share, 0)} of clicks)`).join(", ")}. `}
          {plural(groups.running[at] ?? 0, "keyword")} run{groups.running[at] === 1 && "s"}
          {groups.likeness[at] != null && `; alike to ${percent(groups.likeness[at], 0)}`}.
        </p>
        {misfits.length > 0 && (
          <p>
            Would fit better elsewhere:{" "}
            {misfits.map((one) => (
              <span key={one.id}>
                {one.text}{" "}
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
                </TextButton>{" "}
              </span>
            ))}
          </p>
        )}
        <S.Line>
          <Choice
            label="Campaign of the group"
            value={String(groups.campaign_id[at])}
            options={campaigns.map((one) => ({ id: String(one.id), name: `in ${one.name}` }))}
            inline
            onChange={(to) =>
              void send("post", "/arrange/groups/move", { ids: [group], campaign_id: Number(to) })
            }
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
            onChange={(to) =>
              to !== "" &&
              void send("post", "/arrange/groups/merge", { ids: [group], into: Number(to) })
            }
          />
        </S.Line>
      </S.About>
      <GroupKeywords view={view} at={at} />
    </>
  );
}
