import { useQuery, type UseQueryResult } from "@tanstack/react-query";
import type { paths } from "./api.generated";
import { client, taken } from "./client";
import { usePlan } from "./plan";

const plans = "/api/plans/{plan_id}";

type Answer<P> = P extends {
  get: { responses: { 200: { content: { "application/json": infer Found } } } };
}
  ? Found
  : never;

/** What of a plan can be asked for that needs nothing but the plan. */
export type Asked = keyof {
  [
    P in keyof paths as P extends `${typeof plans}${infer Rest}`
      ? Rest extends `${string}{${string}`
        ? never
        : Answer<paths[P]> extends never
          ? never
          : Rest
      : never
  ]: true;
};

/** `of` says what else an answer hangs on, such as the revisions of other plans. */
type Options = {
  enabled?: boolean;
  query?: Record<string, string | number | null | number[]>;
  of?: string;
};

/** Something of the plan, asked anew when the plan has changed; until then as it was. */
export function usePlanQuery<A extends Asked>(
  asked: A,
  { query, of = "", ...options }: Options = {},
): UseQueryResult<Answer<paths[`${typeof plans}${A}`]>> {
  const { id, summary } = usePlan();
  const found = useQuery<unknown>({
    queryKey: [asked, id, summary.revision, query ?? null, of],
    queryFn: () => {
      const answer: unknown = client.GET(
        `${plans}${asked}` as never,
        { params: { path: { plan_id: id }, query } } as never,
      );
      return taken(answer as Promise<{ data?: unknown; response: Response }>);
    },
    // what another plan answered is nothing to show meanwhile
    placeholderData: (before: unknown, asked?: { queryKey: readonly unknown[] }) =>
      asked?.queryKey[1] === id ? before : undefined,
    meta: { complains: true },
    ...options,
  });
  return found as UseQueryResult<Answer<paths[`${typeof plans}${A}`]>>;
}
