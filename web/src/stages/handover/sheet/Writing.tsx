import { usePlan } from "../../../data/plan";
import { Choice } from "../../../parts/Choice";
import { Sentence } from "../../../parts/Sentence";
import { useStyle } from "./useStyle";

const kinds = [
  { id: "pdf", name: "PDF" },
  { id: "html", name: "HTML" },
  { id: "xlsx", name: "XLSX" },
  { id: "csv", name: "CSV" },
];

/** How long the sheet is, on which paper, how figures are written; and the files of it. */
export function Writing({ query }: { query: string }) {
  const { id } = usePlan();
  const [style, put] = useStyle();
  return (
    <>
      <Sentence>
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
      </Sentence>
      <p>
        {kinds.map((kind) => (
          <a key={kind.id} href={`/api/plans/${id}/report/${kind.id}?${query}`} download>
            {kind.name}
          </a>
        ))}
      </p>
    </>
  );
}
