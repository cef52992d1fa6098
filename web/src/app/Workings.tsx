import { useQuery } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useMemo } from "react";
import { Button } from "react-aria-components";
import { client, taken, type Schemas } from "../data/client";
import { usePlan } from "../data/plan";
import * as S from "./Workings.styles";
import { HowSure } from "./HowSure";
import { Readings } from "./Readings";
import { Sums } from "./Sums";
import { useAsked, useAsking, type Asked } from "./asked";
import { useSettled } from "../parts/useSettled";

type Answer = Schemas["Workings"];

/** The arithmetic of what is selected: short sums with units and sources. */
export function Workings() {
  const { id, summary } = usePlan();
  const { setOpen } = useAsking();
  const { asked } = useAsked();
  const query = useWorkings(id, summary.revision, asked);
  return (
    <S.Panel aria-label="Workings">
      <S.Close>
        <Button aria-label="Close the workings (w)" onPress={() => setOpen(false)}>
          <X size={15} aria-hidden />
        </Button>
      </S.Close>
      {!asked && <S.Quiet>Select a keyword, or press a figure, to see how it came about.</S.Quiet>}
      {asked && query.error && <S.Quiet>{query.error.message}</S.Quiet>}
      {asked && query.data && <Told {...query.data} />}
    </S.Panel>
  );
}

type ToldProps = { of: Asked; answer: Answer | null };

/** An answer with what it was asked of, which may no longer be what is asked now. */
function Told({ of, answer }: ToldProps) {
  if (!answer) return null;
  return (
    <>
      <Sums answer={answer} />
      {of.kind === "keyword" && (
        <Readings keyword={of.id} readings={answer.readings ?? []} apart={answer.apart} />
      )}
      {of.kind === "figure" && of.name !== "next_unit" && <HowSure figure={of.name} />}
    </>
  );
}

/** Steps and calls that follow each other within this time are worked out once, at their end. */
const settleMilliseconds = 80;

function useWorkings(id: number, revision: number, asked: Asked | null) {
  const wanted = useMemo(() => ({ revision, asked }), [revision, asked]);
  const settled = useSettled(wanted, settleMilliseconds);
  return useQuery({
    queryKey: ["workings", id, settled],
    queryFn: async () => ({ of: settled.asked!, answer: await fetchWorkings(id, settled.asked!) }),
    enabled: settled.asked !== null,
    placeholderData: (before) => before,
    retry: false,
  });
}

/** Null where the plan changed meanwhile: what is asked then comes with its next revision. */
function fetchWorkings(plan_id: number, asked: Asked): Promise<Answer | null> {
  const of = <P,>(more: P) => ({ params: { path: { plan_id, ...more } } });
  switch (asked.kind) {
    case "figure":
      return taken(
        client.GET("/api/plans/{plan_id}/workings/{figure}", of({ figure: asked.name })),
      );
    case "selection":
    case "together":
      return taken(
        client.POST("/api/plans/{plan_id}/keywords/workings", {
          ...of({}),
          body: { ids: asked.ids },
        }),
      );
    case "month":
      return taken(
        client.GET("/api/plans/{plan_id}/year/months/{month}/workings", of({ month: asked.month })),
      );
    case "sure":
      return taken<Answer | null>(
        client.GET("/api/plans/{plan_id}/how-sure/workings/{of}", {
          params: { path: { plan_id, of: asked.of }, query: { name: asked.name } },
        }),
      );
    case "standing":
      return taken(
        client.GET("/api/plans/{plan_id}/standing/{figure}/workings", {
          params: { path: { plan_id: asked.plan, figure: asked.figure } },
        }),
      );
    case "apart":
      return taken<Answer | null>(
        client.GET("/api/plans/{plan_id}/compare/{other_id}/workings", {
          params: { path: { plan_id: asked.first, other_id: asked.second } },
        }),
      );
    case "group":
      return taken(
        client.GET(
          "/api/plans/{plan_id}/arrange/workings/group/{group_id}",
          of({ group_id: asked.id }),
        ),
      );
    case "campaign":
      return taken(
        client.GET(
          "/api/plans/{plan_id}/arrange/workings/campaign/{campaign_id}",
          of({ campaign_id: asked.id }),
        ),
      );
    case "negative":
      return taken(
        client.GET(
          "/api/plans/{plan_id}/arrange/workings/negative/{negative_id}",
          of({ negative_id: asked.id }),
        ),
      );
    case "block":
      return taken(
        client.GET("/api/plans/{plan_id}/arrange/workings/block", {
          params: { path: { plan_id }, query: { text: asked.text, match: asked.match } },
        }),
      );
    case "word":
      return taken(
        client.GET("/api/plans/{plan_id}/arrange/workings/word", {
          params: { path: { plan_id }, query: { word: asked.word } },
        }),
      );
    case "keyword":
      return taken(
        client.GET(
          "/api/plans/{plan_id}/keywords/{keyword_id}/workings",
          of({ keyword_id: asked.id }),
        ),
      );
  }
}
