import { useQuery } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { client, taken } from "../data/client";
import { endJob, jobHeader, newJob, useProgress } from "../data/progress";
import { TextButton } from "./Button";
import { number } from "./format";

type Ask<T> = (header: ReturnType<typeof jobHeader>) => Promise<T | null>;

type Drawn<T> = {
  /** What was drawn last; null until something is. */
  found: T | null;
  /** Whether it is of an older plan, and another is being drawn. */
  late: boolean;
  /** How far it is, with the way to stop it; or that it was not drawn, and how to draw it. */
  progress: ReactNode;
};

/** Something that takes a while to draw: told of as it goes, stopped where nobody wants it. */
export function useDrawn<T>(key: readonly unknown[], ask: Ask<T>, enabled = true): Drawn<T> {
  const [job] = useState(newJob);
  const query = useQuery({
    queryKey: [...key],
    queryFn: () => ask(jobHeader(job)).finally(() => endJob(job)),
    enabled,
    retry: false,
    staleTime: Infinity,
    gcTime: 60_000,
  });
  const [held, setHeld] = useState<T | null>(null);
  if (query.data && query.data !== held) setHeld(query.data);
  const progress = useProgress(job);
  const stop = () =>
    void taken(client.POST("/api/jobs/{name}/stop", { params: { path: { name: job } } }));
  const waits = query.isFetching || (enabled && query.data === null);
  let said: ReactNode = null;
  if (waits && progress)
    said = (
      <>
        Drawing: {number(progress.done)} of {number(progress.of)} {progress.what}{" "}
        <TextButton onPress={stop}>stop</TextButton>
      </>
    );
  else if (waits) said = "Drawing …";
  else if (query.error)
    said = (
      <>
        Not drawn: {query.error.message}{" "}
        <TextButton onPress={() => void query.refetch()}>draw again</TextButton>
      </>
    );
  return { found: query.data ?? held, late: !query.data, progress: said };
}
