import { DropZone, FileTrigger, ToggleButton } from "react-aria-components";
import { usePlanChange } from "../../data/usePlanChange";
import { Button, MainButton, TextButton } from "../../parts/Button";
import { Working } from "../../parts/Working";
import { number, plural } from "../../parts/format";
import { Assign } from "./Assign";
import * as S from "./Learn.styles";
import { useBringing } from "./useBringing";
import type { LearnView } from "./view";

const types = [".csv", ".tsv", ".txt", ".xlsx", ".json", "text/csv"];

type Props = {
  view: LearnView;
  /** Something is said of what came in, and should be read before anything else is shown. */
  onSaid: () => void;
};

/** Results come in: out of files, or from the practice market; each counts, or is left out. */
export function ResultsIn({ view, onSaid }: Props) {
  const { job, said, unknown, one, files, practice, away, otherwise } = useBringing(onSaid);
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
      {unknown.map((held, at) => (
        <Assign
          key={`${at} ${held.file.name}`}
          unknown={held}
          onRead={(file, columns, beside) => {
            away(file);
            void one(file, columns, beside);
          }}
          onAway={() => away(held.file)}
        />
      ))}
      {said.map(({ file, name, taken }, at) => (
        <section key={`${at} ${name}`} role="status">
          <p>
            <b>{name}</b>:{" "}
            {taken.same
              ? "just this is in force already; nothing was changed."
              : `${plural(taken.taken, "row")} by ${taken.level}.`}{" "}
            {taken.refused.length > 0 && (
              <S.Rose>{plural(taken.refused.length, "row")} refused.</S.Rose>
            )}{" "}
            {file && (
              <TextButton onPress={() => void otherwise(file)}>say which columns …</TextButton>
            )}
          </p>
          {taken.notices.map((notice) => (
            <p key={notice}>{notice}</p>
          ))}
          <ul>
            {taken.refused.slice(0, 8).map((row) => (
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
