import { useState } from "react";
import { DropZone, FileTrigger, ToggleButton } from "react-aria-components";
import { client, taken, uploadOf, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { endJob, jobHeader, newJob } from "../../data/progress";
import { useSaying } from "../../data/saying";
import { usePlanChange } from "../../data/usePlanChange";
import { Button, MainButton } from "../../parts/Button";
import { Working } from "../../parts/Working";
import { number, plural } from "../../parts/format";
import * as S from "./Learn.styles";
import type { LearnView } from "./view";

type Taken = Schemas["ResultsTaken"];
const types = [".csv", ".tsv", ".txt", ".xlsx", ".json", "text/csv"];

/** Results come in: out of files, or from the practice market; each counts, or is left out. */
export function ResultsIn({ view }: { view: LearnView }) {
  const { id, setSummary } = usePlan();
  const { complain } = useSaying();
  const [job, setJob] = useState<string | null>(null);
  const [said, setSaid] = useState<{ name: string; taken: Taken }[]>([]);
  const path = { params: { path: { plan_id: id } } };
  const read = async (name: string, ask: (job: string) => Promise<Taken>) => {
    const made = newJob();
    setJob(made);
    try {
      const found = await ask(made);
      setSaid((before) => [...before, { name, taken: found }]);
      setSummary(found.summary);
    } catch (error) {
      complain(error);
    }
    endJob(made);
    setJob(null);
  };
  const files = async (some: File[]) => {
    setSaid([]);
    for (const file of some)
      await read(file.name, (name) =>
        taken(
          client.POST("/api/plans/{plan_id}/results", {
            ...path,
            ...jobHeader(name),
            ...uploadOf(file),
          }),
        ),
      );
  };
  const practice = () => {
    setSaid([]);
    return read("the practice market", () =>
      taken(client.POST("/api/plans/{plan_id}/results/practice", path)),
    );
  };
  if (job) return <Working what="Reading results" job={job} />;
  return (
    <S.Page>
      {view.since === null && (
        <p>
          Here results are held against the plan: what people really typed, which keywords to stop
          or raise, why the month differs, and which assumptions to correct. Bring a report in, by
          keyword and day, and one of search terms where you have it; they are told apart by their
          headings.
        </p>
      )}
      <DropZone
        aria-label="Drop results here"
        onDrop={(event) =>
          void Promise.all(
            event.items.flatMap((item) => (item.kind === "file" ? [item.getFile()] : [])),
          ).then(files)
        }
      >
        <S.Drop>
          <FileTrigger
            allowsMultiple
            acceptedFileTypes={types}
            onSelect={(list) => void files([...(list ?? [])])}
          >
            <MainButton>Choose files</MainButton>
          </FileTrigger>
          {view.has_practice && (
            <Button onPress={() => void practice()}>Take over from the practice market</Button>
          )}
          <small>
            CSV, TSV, XLSX or JSON: keyword or term, match, day (or since and until), impressions,
            clicks, cost, customers; could_show and lost_to_money where the platform says them.
          </small>
        </S.Drop>
      </DropZone>
      {said.map(({ name, taken: one }) => (
        <section key={name} role="status">
          <p>
            <b>{name}</b>:{" "}
            {one.same
              ? "just this is in force already; nothing was changed."
              : `${plural(one.taken, "row")} by ${one.level}.`}{" "}
            {one.refused.length > 0 && (
              <S.Rose>{plural(one.refused.length, "row")} refused.</S.Rose>
            )}
          </p>
          {one.notices.map((notice) => (
            <p key={notice}>{notice}</p>
          ))}
          <ul>
            {one.refused.slice(0, 8).map((row) => (
              <li key={`${row.row} ${row.column}`}>
                row {number(row.row)}, {row.column}: {row.why}
              </li>
            ))}
          </ul>
        </section>
      ))}
      {view.notices.length > 0 && (
        <>
          <p>What stands out in the results that count:</p>
          <ul>
            {view.notices.map((notice) => (
              <li key={notice}>{notice}</li>
            ))}
          </ul>
        </>
      )}
      {view.imports.length > 0 && <Imports imports={view.imports} />}
    </S.Page>
  );
}

/** What was brought in; each counts, or is left out. */
function Imports({ imports }: { imports: LearnView["imports"] }) {
  const send = usePlanChange();
  return (
    <S.Table>
      <thead>
        <tr>
          <th scope="col">brought in</th>
          <th scope="col">from</th>
          <th scope="col">by</th>
          <th scope="col">days</th>
          <th scope="col">rows</th>
          <th scope="col">counts</th>
        </tr>
      </thead>
      <tbody>
        {imports.map((one) => (
          <tr key={one.id}>
            <td>{new Date(one.at).toLocaleString()}</td>
            <td>{one.source}</td>
            <td>{one.level}</td>
            <td>
              {one.since} to {one.until}
            </td>
            <td data-number>{number(one.rows)}</td>
            <td>
              <ToggleButton
                isSelected={one.in_force}
                aria-label={`Whether ${one.source} of ${one.at} counts`}
                onChange={(in_force) =>
                  void send(
                    "post",
                    "/results/{import_id}/force",
                    { in_force },
                    {
                      import_id: one.id,
                    },
                  )
                }
              >
                {one.in_force ? "counts" : "left out"}
              </ToggleButton>
            </td>
          </tr>
        ))}
      </tbody>
    </S.Table>
  );
}
