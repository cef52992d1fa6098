import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { AskedProvider } from "./app/asked";
import type { ChangeAnswer, PlanAnswer, SheetBlock } from "./data/client";
import { PlanProvider } from "./data/plan";
import { SayingProvider, useSaid } from "./data/saying";
import { sheetOf } from "./testing-sheet";
import { summaryOf } from "./testing-summary";

export const changeOf = (changes: Partial<ChangeAnswer>): ChangeAnswer => ({
  did: "did something",
  was: 1,
  summary: summaryOf(2),
  sheet: null,
  rows: null,
  columns: null,
  ...changes,
});

const isJson = (request: Request) => request.headers.get("content-type")?.includes("json") ?? false;

export type Asked = { method: string; path: string; body: unknown };
type Answer = { status?: number; body: unknown };

/**
 * Show something on a plan whose server is a table of answers, "METHOD /path" each; returns
 * what was asked of it.
 */
export async function showOnPlan(
  children: ReactNode,
  answers: Record<string, (asked: Asked, query: URLSearchParams) => Answer> = {},
  sheet: SheetBlock = sheetOf([{ text: "sash repair", call: "keep" }, { text: "sash jobs" }]),
): Promise<Asked[]> {
  const asked: Asked[] = [];
  vi.stubGlobal(
    "EventSource",
    class {
      onmessage = null;
      close() {}
    },
  );
  vi.stubGlobal("fetch", async (request: Request) => {
    const address = new URL(request.url);
    const path = address.pathname.replace(/^\/api\/plans\/1/, "");
    const text = request.method === "GET" ? "" : await request.text();
    const one = {
      method: request.method,
      path,
      body: text && isJson(request) ? JSON.parse(text) : null,
    };
    if (request.method !== "GET") asked.push(one);
    const plan: PlanAnswer = { summary: summaryOf(1), sheet };
    const found = answers[`${request.method} ${path}`];
    const answer =
      found?.(one, address.searchParams) ??
      (path === "" ? { body: plan } : { status: 404, body: refusal("not here") });
    return new Response(JSON.stringify(answer.body), {
      status: answer.status ?? 200,
      headers: { "Content-Type": "application/json" },
    });
  });
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={queries}>
      <SayingProvider>
        <MemoryRouter>
          <PlanProvider id={1} waiting="waiting" failed={(why) => why}>
            <AskedProvider>
              {children}
              <SaidLine />
            </AskedProvider>
          </PlanProvider>
        </MemoryRouter>
      </SayingProvider>
    </QueryClientProvider>,
  );
  await screen.findByTestId("said");
  return asked;
}

export const refusal = (message: string) => ({ error: { code: "bad_value", message, where: "" } });

function SaidLine() {
  return <div data-testid="said">{useSaid()?.text}</div>;
}
