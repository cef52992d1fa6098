import { useQuery } from "@tanstack/react-query";
import { client, taken, uploadOf, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { Blank } from "../../../parts/Blank";
import { TextButton } from "../../../parts/Button";
import { Choice } from "../../../parts/Choice";
import { Sentence } from "../../../parts/Sentence";
import { FilePick } from "../../../parts/FilePick";
import { useStyle } from "./useStyle";

/** Letter-head, logo and note; or all of the style as another plan has it. */
export function Head() {
  const { id, change } = usePlan();
  const send = usePlanChange();
  const [style, put] = useStyle();
  return (
    <>
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
        <FilePick
          accept={[".png", ".svg", "image/png", "image/svg+xml"]}
          onFile={(chosen) =>
            void change(() =>
              taken(
                client.POST("/api/plans/{plan_id}/report/logo", {
                  params: { path: { plan_id: id } },
                  ...uploadOf(chosen),
                }),
              ),
            )
          }
        >
          logo …
        </FilePick>{" "}
        <TextButton onPress={() => void send("post", "/report/logo/remove", undefined)}>
          no logo
        </TextButton>
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
      <LikeAnother />
    </>
  );
}

const own = "own";

/** Takes over how another plan's sheet is written; the note stays this plan's. */
function LikeAnother() {
  const { id } = usePlan();
  const send = usePlanChange();
  const plans = useQuery({
    queryKey: ["plans"],
    queryFn: () => taken<Schemas["PlanItem"][]>(client.GET("/api/plans")),
  });
  const others = (plans.data ?? []).filter((plan) => plan.id !== id && plan.is_plan);
  if (others.length === 0) return null;
  return (
    <Sentence>
      Style and letter-head:{" "}
      <Choice
        label="Style of another plan"
        inline
        value={own}
        options={[
          { id: own, name: "this plan’s own" },
          ...others.map((plan) => ({ id: String(plan.id), name: `as ${plan.name} has them` })),
        ]}
        onChange={(of) => of !== own && void send("post", "/report/style", { of: Number(of) })}
      />
    </Sentence>
  );
}
