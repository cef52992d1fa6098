import { useNavigate } from "react-router";
import { useAsking, type Asked } from "../../app/asked";
import { type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { Traced } from "../../parts/Traced";
import { TextButton } from "../../parts/Button";
import { count, money, number, plural } from "../../parts/format";
import * as S from "./Arrange.styles";

type Conflict = Schemas["ConflictItem"];
type Props = { conflicts: Conflict[] };

const named = 6;

/** What leaves of each conflict. */
export function conflictsLeave(currency: string) {
  return {
    what: (c: Conflict) => c.says,
    negative: (c: Conflict) => c.negative,
    keywords: (c: Conflict) => c.texts.join("; "),
    "search terms": (c: Conflict) => c.terms.join("; "),
    "searches a month": (c: Conflict) => c.searches,
    "customers a month": (c: Conflict) => c.customers,
    [`spend a month, ${currency}`]: (c: Conflict) => c.spend,
  };
}

/** What gets in each other's way: negatives against keywords, keywords against keywords. */
export function Conflicts({ conflicts }: Props) {
  if (conflicts.length === 0)
    return <S.Bare>Nothing gets in each other’s way: no negative stops what you keep.</S.Bare>;
  return (
    <S.List aria-label="Conflicts">
      {conflicts.map((conflict, at) => (
        <One key={at} conflict={conflict} />
      ))}
    </S.List>
  );
}

function One({ conflict }: { conflict: Conflict }) {
  const { id, summary } = usePlan();
  const send = usePlanChange();
  const { setActive, ask } = useAsking();
  const traced: Asked =
    conflict.negative_id === null
      ? { kind: "together", ids: conflict.ids }
      : { kind: "negative", id: conflict.negative_id };
  const navigate = useNavigate();
  const takeOut = (negative: number) => void send("post", "/negatives/remove", { ids: [negative] });
  const letGo = (pinned_id: number) =>
    void send("post", "/arrange/lists/pinned/{pinned_id}/leave", undefined, { pinned_id });
  const leave = () =>
    void send(
      "post",
      "/arrange/groups/{group_id}",
      { blocks_twins: true },
      { group_id: conflict.group_id! },
    );
  const block = () =>
    void send("post", "/arrange/negatives", {
      ...{ items: conflict.to_block.map((text) => ({ text, match: "exact" as const })) },
      ...{ note: "", by: "advice" as const, campaign_id: conflict.campaign_id, group_id: null },
    });
  const show = () => {
    setActive(conflict.ids[0] ?? null);
    void navigate(`/plan/${id}/sift`);
  };
  const names = [...conflict.texts, ...conflict.terms];
  return (
    <li>
      <p>
        <strong>{conflict.negative && `${conflict.negative}: `}</strong>
        {conflict.says}
        {conflict.pinned && `; it is of the list ${conflict.pinned}`}
      </p>
      <p>
        {names.slice(0, named).join(", ")}
        {conflict.count > named && ` and ${number(conflict.count - named)} more`}
      </p>
      <p>
        <Traced onPress={() => ask(traced)}>
          <small>{costs(conflict, summary.brief.values.currency)}</small>
        </Traced>{" "}
        {conflict.negative_id !== null && (
          <TextButton onPress={() => takeOut(conflict.negative_id!)}>
            take “{conflict.negative}” out
          </TextButton>
        )}{" "}
        {conflict.pinned_id !== null && (
          <TextButton onPress={() => letGo(conflict.pinned_id!)}>
            use the list {conflict.pinned} no longer
          </TextButton>
        )}{" "}
        {conflict.kind === "twins_unblocked" && (
          <TextButton onPress={leave}>leave the texts to the exact ones</TextButton>
        )}{" "}
        {conflict.to_block.length > 0 && (
          <TextButton onPress={block}>
            block {plural(conflict.to_block.length, "text")} in the campaign
          </TextButton>
        )}{" "}
        {conflict.ids.length > 0 && <TextButton onPress={show}>show in Sift</TextButton>}
      </p>
    </li>
  );
}

function costs({ searches, customers, spend }: Conflict, currency: string): string {
  const parts = [
    searches > 0 && plural(Math.round(searches), "search", "searches"),
    customers > 0 && `${count(customers)} customers`,
    spend > 0 && `${money(spend)} ${currency}`,
  ].filter(Boolean);
  return parts.length > 0 ? `${parts.join(", ")} a month.` : "";
}
