import createClient from "openapi-fetch";
import type { components, paths } from "./api.generated";

export type Schemas = components["schemas"];
export type Summary = Schemas["Summary"];
export type Texts = Schemas["Texts"];
export type Figures = Schemas["Figures"];
export type SheetBlock = Schemas["SheetBlock"];
export type PlanAnswer = Schemas["PlanAnswer"];
export type ChangeAnswer = Schemas["ChangeAnswer"];
export type CallName = Schemas["CallChange"]["call"];
export type FigureName =
  paths["/api/plans/{plan_id}/workings/{figure}"]["get"]["parameters"]["path"]["figure"];

/** Who this window is, so that the server needn't tell it of its own changes. */
export const windowName = Math.random().toString(36).slice(2);

export const client = createClient<paths>({
  baseUrl: window.location.origin,
  headers: { "X-Milkwort-Window": windowName },
  fetch: (request) => globalThis.fetch(request),
});

/** What the server refused, in its own words. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly where = "",
    /** Whether the program answered at all: what it refuses once it refuses again. */
    readonly answered = true,
  ) {
    super(message);
  }
}

type Result<T> = { data?: T; error?: unknown; response: Response };

/** Return the data of an answer, or throw what went wrong in words for a person. */
export async function taken<T>(request: Promise<Result<T>>): Promise<T> {
  let result: Result<T>;
  try {
    result = await request;
  } catch {
    throw new Refused("The program can't be reached. Is it still running?", "", false);
  }
  if (result.response.ok) return result.data as T;
  const body = result.error as Partial<Schemas["ErrorAnswer"]> | undefined;
  throw new Refused(
    body?.error?.message ?? `The program answered ${result.response.status}.`,
    body?.error?.where,
  );
}

/** A request that carries one file. */
export function uploadOf(file: File) {
  const form = new FormData();
  form.append("file", file);
  return { body: form as never, bodySerializer: (body: unknown) => body as never };
}
