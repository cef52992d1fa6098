import { useState } from "react";
import { usePlan } from "../../../data/plan";
import { usePlanQuery } from "../../../data/usePlanQuery";
import * as S from "../HandOver.styles";
import { Head } from "./Head";
import { Parts } from "./Parts";
import { Writing } from "./Writing";

/** The client's sheet as it will be printed, and what the planner chooses of it. */
export function ClientSheet() {
  const { id, summary } = usePlan();
  const [beside, setBeside] = useState<number[]>([]);
  const family = usePlanQuery("/versions").data?.versions ?? [];
  const query = beside.map((one) => `with=${one}`).join("&");
  return (
    <S.Printed>
      <S.Choices aria-label="What stands in it">
        <Writing query={query} />
        <Parts
          others={family.filter((one) => one.id !== id)}
          beside={beside}
          onBeside={setBeside}
        />
        <Head />
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
