import { useState } from "react";
import { client, taken, uploadOf, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { endJob, jobHeader, newJob } from "../../data/progress";
import { useSaying } from "../../data/saying";
import type { Beside, Unknown } from "./Assign";

type Taken = Schemas["ResultsTaken"];

/** Files of results on their way in: what came of each, and those whose headings don't tell. */
export function useBringing(onSaid: () => void) {
  const { id, setSummary } = usePlan();
  const { complain } = useSaying();
  const [job, setJob] = useState<string | null>(null);
  const [said, setSaid] = useState<{ file: File | null; name: string; taken: Taken }[]>([]);
  const path = { params: { path: { plan_id: id } } };
  const [unknown, setUnknown] = useState<Unknown[]>([]);
  const read = async (
    name: string,
    ask: (job: string) => Promise<Taken>,
    file: File | null = null,
    otherwise: (error: unknown) => Promise<void> | void = complain,
  ) => {
    const made = newJob();
    setJob(made);
    try {
      const found = await ask(made);
      setSaid((before) => [...before, { file, name, taken: found }]);
      if (found.notices.length > 0 || found.refused.length > 0) onSaid();
      setSummary(found.summary);
    } catch (error) {
      await otherwise(error);
    }
    endJob(made);
    setJob(null);
  };
  const one = (file: File, columns: string[], beside: Beside = {}) =>
    read(
      file.name,
      (name) =>
        taken(
          client.POST("/api/plans/{plan_id}/results", {
            params: { ...path.params, query: { columns, ...beside } },
            ...jobHeader(name),
            ...uploadOf(file),
          }),
        ),
      file,
      (error) => askColumns(file, error, columns, beside),
    );
  /** Asks which columns hold what; what was assigned before stays as it was said. */
  const askColumns = async (file: File, error: unknown, columns: string[], beside: Beside = {}) => {
    try {
      const asked = client.POST("/api/plans/{plan_id}/results/headings", {
        ...path,
        ...uploadOf(file),
      });
      const found = await taken<Unknown["found"]>(asked);
      const why = error instanceof Error ? error.message : "";
      const assigned = Object.fromEntries(
        columns.map((one) => one.split(":")).map(([field, at]) => [field!, Number(at)]),
      );
      const held = columns.length > 0 ? assigned : found.columns;
      const { spent = null, ...days } = beside;
      const asking = { file, why, spent, found: { ...found, columns: held, ...days } };
      setUnknown((before) => [...before.filter((one) => one.file !== file), asking]);
    } catch {
      // it is no table at all: what was said of it first is what there is to say
      if (error) complain(error);
    }
  };
  const files = async (some: File[]) => {
    setSaid([]);
    setUnknown([]);
    for (const file of some) await one(file, []);
  };
  const away = (file: File) => setUnknown((before) => before.filter((held) => held.file !== file));
  const practice = () => {
    setSaid([]);
    return read("the practice market", () =>
      taken(client.POST("/api/plans/{plan_id}/results/practice", path)),
    );
  };
  const otherwise = (file: File) => askColumns(file, null, []);
  return { job, said, unknown, one, files, practice, away, otherwise };
}
