import { useCallback } from "react";
import type { paths } from "./api.generated";
import { client, taken, type ChangeAnswer } from "./client";
import { usePlan } from "./plan";

const plans = "/api/plans/{plan_id}";

type Method = "post" | "put" | "patch";
type Answered = { 200: { content: { "application/json": ChangeAnswer } } };

/** What of a plan can be changed, by how it is sent. */
type Changing<M extends Method> = keyof {
  [
    P in keyof paths as P extends `${typeof plans}${infer Rest}`
      ? paths[P] extends Record<M, { responses: Answered }>
        ? Rest
        : never
      : never
  ]: true;
};

type Call<M extends Method, R extends string> =
  paths[`${typeof plans}${R}` & keyof paths] extends Record<M, infer One> ? One : never;

type Body<M extends Method, R extends string> =
  Call<M, R> extends { requestBody?: { content: { "application/json": infer Sent } } }
    ? Sent
    : undefined;

/** What stands in the path beside the plan. */
type Named<R extends string> = R extends `${string}{${infer Name}}${infer Rest}`
  ? { [K in Name]: string | number } & Named<Rest>
  : unknown;

export type Send = <M extends Method, R extends Changing<M> & string>(
  method: M,
  what: R,
  body: Body<M, R>,
  ...named: unknown extends Named<R> ? [] : [Named<R>]
) => Promise<boolean>;

type Ask = (where: string, init: object) => Promise<{ data?: ChangeAnswer; response: Response }>;

/** Sends a change of the plan; true where it was taken, otherwise the reason is said. */
export function usePlanChange(): Send {
  const { id, change } = usePlan();
  return useCallback<Send>(
    (method, what, body, ...named) => {
      const params = { path: { plan_id: id, ...(named[0] as object | undefined) } };
      const ask = client[method.toUpperCase() as "POST"] as unknown as Ask;
      return change(() => taken(ask(`${plans}${what}`, { params, body })));
    },
    [id, change],
  );
}
