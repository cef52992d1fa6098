import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, taken } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { Button, MainButton } from "../../../parts/Button";
import { Field, Foot, Sheet } from "../../../parts/Sheet";
import { number, plural } from "../../../parts/format";
import { useSettled } from "../../../parts/useSettled";
import * as A from "../Arrange.styles";

type Props = { open: boolean; onOpen: (open: boolean) => void };

const settleMilliseconds = 200;
const shownFields = 100;

/** A text replaced in every field of every ad; what would change is shown first. */
export const ReplaceSheet = ({ open, onOpen }: Props) => (
  <Sheet title="Search and replace in all ads" open={open} onOpen={onOpen} width={620}>
    <Replace onDone={() => onOpen(false)} />
  </Sheet>
);

function Replace({ onDone }: { onDone: () => void }) {
  const { id, summary } = usePlan();
  const send = usePlanChange();
  const [search, setSearch] = useState("");
  const [by, setBy] = useState("");
  const body = JSON.stringify({ search, by });
  const settled = useSettled(body, settleMilliseconds);
  const found = useQuery({
    queryKey: ["ads replaced", id, summary.revision, settled],
    queryFn: () =>
      taken(
        client.POST("/api/plans/{plan_id}/arrange/ads/replace/look", {
          params: { path: { plan_id: id } },
          body: JSON.parse(settled) as { search: string; by: string },
        }),
      ),
    enabled: search !== "",
    placeholderData: keepPreviousData,
    retry: false,
  }).data;
  const fields = search === "" ? [] : (found?.fields ?? []);
  const go = () =>
    void send("post", "/arrange/ads/replace", { search, by }).then((took) => took && onDone());
  return (
    <>
      <Field>
        search, capitals or not
        <input
          // eslint-disable-next-line jsx-a11y/no-autofocus -- the planner just opened it
          autoFocus
          value={search}
          maxLength={200}
          onChange={(event) => setSearch(event.currentTarget.value)}
        />
      </Field>
      <Field>
        replace by
        <input value={by} maxLength={200} onChange={(event) => setBy(event.currentTarget.value)} />
      </Field>
      {fields.length > 0 && (
        <A.Lines aria-label="What would change">
          {fields.slice(0, shownFields).map((one) => (
            <li key={`${one.ad_id} ${one.field}`}>
              <A.Soft>
                {one.group}, {one.field}:
              </A.Soft>{" "}
              <del dir="auto">{one.before}</del> <ins dir="auto">{one.after}</ins>
            </li>
          ))}
          {fields.length > shownFields && <li>… and {number(fields.length - shownFields)} more</li>}
        </A.Lines>
      )}
      <Foot>
        <Button onPress={onDone}>Leave them</Button>
        <MainButton isDisabled={fields.length === 0 || body !== settled} onPress={go}>
          Replace in {plural(fields.length, "field")}
        </MainButton>
      </Foot>
    </>
  );
}
