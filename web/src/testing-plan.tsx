import { render, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { AskedProvider } from "./app/asked";
import type { ChangeAnswer, PlanAnswer, SheetBlock } from "./data/client";
import { PlanProvider } from "./data/plan";
import { Queries } from "./data/Queries";
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
  render(
    <SayingProvider>
      <Queries patience={0}>
        <MemoryRouter>
          <PlanProvider id={1} waiting="waiting" failed={(why) => why}>
            <AskedProvider>
              {children}
              <SaidLine />
            </AskedProvider>
          </PlanProvider>
        </MemoryRouter>
      </Queries>
    </SayingProvider>,
  );
  await screen.findByTestId("said");
  return asked;
}

/** A view whose question is refused: what it shows, asked about it once and once again. */
export async function whyNotOpen(view: ReactNode, path: string): Promise<[string, string]> {
  let times = 0;
  const no = () => ({ status: 422, body: refusal(`no, ${++times}`) });
  await showOnPlan(view, { [`GET ${path}`]: no });
  const said = await screen.findByText(/no, 1/, { selector: "[role=alert]" });
  const first = said.textContent;
  await userEvent.click(within(said).getByRole("button", { name: "try again" }));
  const again = await screen.findByText(/no, 2/, { selector: "[role=alert]" });
  return [first, again.textContent];
}

export const refusal = (message: string) => ({ error: { code: "bad_value", message, where: "" } });

function SaidLine() {
  return <div data-testid="said">{useSaid()?.text}</div>;
}
