import { useRef, useState } from "react";
import { Checkbox, CheckboxGroup } from "react-aria-components";
import { client, taken, uploadOf, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { usePlanQuery } from "../../data/usePlanQuery";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import * as S from "./HandOver.styles";

type Style = Required<Schemas["ReportStyleValues"]>;

const parts: { id: Style["sections"][number]; name: string }[] = [
  { id: "promise", name: "what it costs and brings" },
  { id: "versions", name: "versions to choose from" },
  { id: "buy_now", name: "to buy now" },
  { id: "next_in_line", name: "next in line" },
  { id: "too_dear", name: "too dear today" },
  { id: "blocked", name: "blocked" },
  { id: "year", name: "month and year" },
  { id: "ads", name: "ads" },
  { id: "assumed", name: "what was assumed" },
  { id: "worked", name: "sums worked through" },
  { id: "steps", name: "what happens next" },
];
const kinds = [
  { id: "pdf", name: "PDF" },
  { id: "html", name: "HTML" },
  { id: "xlsx", name: "XLSX" },
  { id: "csv", name: "CSV" },
];

const figures: { id: Style["columns"][number]; name: string }[] = [
  { id: "group", name: "group" },
  { id: "searches", name: "searches" },
  { id: "bid", name: "bid" },
  { id: "cpc", name: "price of a click" },
  { id: "clicks", name: "clicks" },
  { id: "customers", name: "customers" },
  { id: "spend", name: "spend" },
];

/** The client's sheet as it will be printed, and what the planner chooses of it. */
export function ClientSheet() {
  const { id, summary, change } = usePlan();
  const picker = useRef<HTMLInputElement>(null);
  const send = usePlanChange();
  const style = summary.own.report_style as Style;
  const [beside, setBeside] = useState<number[]>([]);
  const family = usePlanQuery("/versions").data?.versions ?? [];
  const others = family.filter((one) => one.id !== id);
  const put = (some: Partial<Style>) =>
    send("patch", "/own", { report_style: { ...style, ...some } });
  const query = beside.map((one) => `with=${one}`).join("&");
  return (
    <S.Printed>
      <S.Choices aria-label="What stands in it">
        <p>
          <Choice
            label="Length"
            inline
            value={style.short ? "short" : "whole"}
            options={[
              { id: "whole", name: "all of it" },
              { id: "short", name: "a page" },
            ]}
            onChange={(to) => void put({ short: to === "short" })}
          />{" "}
          on{" "}
          <Choice
            label="Paper"
            inline
            value={style.paper}
            options={[
              { id: "a4", name: "A4" },
              { id: "us-letter", name: "Letter" },
            ]}
            onChange={(paper) => void put({ paper })}
          />
          , figures as{" "}
          <Choice
            label="How figures are written"
            inline
            value={style.marks}
            options={(["1,234.5", "1.234,5", "1 234,5"] as const).map((one) => ({
              id: one,
              name: one,
            }))}
            onChange={(marks) => void put({ marks })}
          />
        </p>
        <p>
          {kinds.map((kind) => (
            <a key={kind.id} href={`/api/plans/${id}/report/${kind.id}?${query}`} download>
              {kind.name}
            </a>
          ))}
        </p>
        <CheckboxGroup
          aria-label="Parts of the sheet"
          value={style.sections}
          onChange={(chosen) =>
            void put({
              sections: parts.flatMap((part) => (chosen.includes(part.id) ? [part.id] : [])),
            })
          }
        >
          {parts.map((part) => (
            <Checkbox key={part.id} value={part.id}>
              <span aria-hidden /> {part.name}
            </Checkbox>
          ))}
        </CheckboxGroup>
        {others.length > 0 && (
          <CheckboxGroup
            aria-label="Versions beside it"
            value={beside.map(String)}
            onChange={(chosen) => setBeside(chosen.map(Number).slice(0, 3))}
          >
            {others.map((one) => (
              <Checkbox key={one.id} value={String(one.id)}>
                <span aria-hidden /> beside it: {one.label || "as first made"}
              </Checkbox>
            ))}
          </CheckboxGroup>
        )}
        <CheckboxGroup
          aria-label="Figures of a keyword"
          value={style.columns}
          onChange={(chosen) =>
            void put({
              columns: figures.flatMap((one) => (chosen.includes(one.id) ? [one.id] : [])),
            })
          }
        >
          {figures.map((one) => (
            <Checkbox key={one.id} value={one.id}>
              <span aria-hidden /> {one.name}
            </Checkbox>
          ))}
        </CheckboxGroup>
        <p>
          From{" "}
          <Blank
            label="Letter-head, lines apart by a comma"
            value={style.letterhead.join(", ")}
            placeholder="name, lines"
            onCommit={(text) =>
              put({
                letterhead: text
                  .split(",")
                  .map((line) => line.trim())
                  .filter(Boolean),
              })
            }
          />
        </p>
        <p>
          <TextButton onPress={() => picker.current?.click()}>logo …</TextButton>{" "}
          <TextButton onPress={() => void send("post", "/report/logo/remove", undefined)}>
            no logo
          </TextButton>
          <input
            ref={picker}
            type="file"
            hidden
            aria-label="Logo"
            accept=".png,.svg,image/png,image/svg+xml"
            onChange={(event) => {
              const chosen = event.currentTarget.files?.[0];
              event.currentTarget.value = "";
              if (chosen)
                void change(() =>
                  taken(
                    client.POST("/api/plans/{plan_id}/report/logo", {
                      params: { path: { plan_id: id } },
                      ...uploadOf(chosen),
                    }),
                  ),
                );
            }}
          />
        </p>
        <p>
          Note{" "}
          <Blank
            label="Note in the sheet"
            value={style.note}
            placeholder="none"
            onCommit={(note) => put({ note })}
          />
        </p>
      </S.Choices>
      <iframe
        key={`${summary.revision} ${query}`}
        title="The client’s sheet as it will be printed"
        src={`/api/plans/${id}/report.html?${query}`}
        sandbox=""
      />
    </S.Printed>
  );
}
