import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { AskedProvider } from "./app/asked";
import type { ChangeAnswer, Summary, PlanAnswer, SheetBlock } from "./data/client";
import { PlanProvider } from "./data/plan";
import { SayingProvider, useSaid } from "./data/saying";
import { sheetOf } from "./testing-sheet";

/** A summary with the figures a test cares for. */
export function summaryOf(revision: number, purse: Partial<Summary["purse"]> = {}): Summary {
  return {
    plan_id: 1,
    revision,
    brief: {
      name: "A plan",
      label: "",
      not_entered: ["start_date"],
      assumptions: {},
      strange: [],
      acting: { stretch: 0.25, low_percentile: 0.25, high_percentile: 0.75 },
      values: {
        offer_name: "repairs",
        sale_value: 340,
        gross_margin: 0.55,
        sales_per_customer: 1.2,
        rate_low: 0.02,
        rate_likely: 0.03,
        rate_high: 0.045,
        close_low: null,
        close_likely: null,
        close_high: null,
        currency: "GBP",
        monthly_spend: 600,
        goal: "customers",
        start_date: "2027-09-01",
        pricing: "pay_enough",
        places: ["Eastmere"],
        volume_basis: "exact",
        ceiling_rule: "profit_share",
        ceiling_value: 0.3,
        max_cpc: null,
        may_pay_to_learn: false,
        policy: "fitted",
        flat_bid: null,
        policy_share: null,
        season: null,
        gross_spend: null,
        tax_share: 0,
        fee: 0,
        profile: null,
        other_places: [],
        max_keywords: null,
        min_clicks: 0,
        showing: null,
        last_day: "",
        counted_by: "",
        visit_tag: "",
        tell_weekend: false,
        holidays_of: "",
        stale_days: 180,
        year_purse: "flat",
        year_refit: false,
        year_months: null,
        cap_clicks: null,
        odd_step: false,
        more_offers: [],
      },
      purse: 600,
      shown_share: 1,
      reading_rule: "newest",
      worth: {
        sale_value: 340,
        kept: 187,
        contribution: 224.4,
        allowed: 157.08,
        rate_low: 0.02,
        rate: 0.03,
        rate_high: 0.045,
        break_even_cpc: 6.732,
        ceiling: 4.7124,
        ceiling_low: 3.1416,
        ceiling_high: 7.0686,
      },
      backward: [
        {
          price: 2,
          rule: 78.54,
          break_even: 112.2,
          expected: 33.3,
          meets_rule: true,
          breaks_even: true,
        },
        {
          price: 8,
          rule: 19.6,
          break_even: 28.05,
          expected: 33.3,
          meets_rule: false,
          breaks_even: false,
        },
      ],
    },
    trail: {
      ceiling: 4.71,
      keywords: 2,
      kept: 1,
      to_call: 1,
      groups: 1,
      spend: 500,
      purse: 600,
      campaigns: 1,
      without_ad: 0,
      hand_overs: 0,
    },
    purse: {
      purse: 600,
      per_day: 16.4,
      spend: 500,
      clicks: 400,
      customers: 12,
      cost_per_customer: 41.67,
      profit: 2000,
      revenue: 4900,
      running: 1,
      goal: "customers",
      next_unit: 0.0145,
      next_return: 0.0145,
      pace: 1,
      gap: 0,
      exact: true,
      policy: "fitted",
      saturated: false,
      segments: [{ id: 1, spot_id: null, name: "Repair", spend: 500 }],
      notices: [],
      ...purse,
    },
    closed_as: null,
    journal: { undo: null, redo: null },
    own: {
      quick_reasons: ["too dear", "another town"],
      saved_filters: [],
      house_rules: [],
      word_kinds: {},
      report_style: {
        sections: ["promise", "buy_now"],
        columns: ["searches", "bid"],
        short: false,
        language: "en",
        marks: "1,234.5",
        sign_first: true,
        paper: "a4",
        letterhead: [],
        note: "",
      },
    },
    tail: {
      keywords: 0,
      kept: 0,
      clicks: 0,
      spend: 0,
      customers: 0,
      more_spend: 0,
      more_customers: 0,
    },
  };
}

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
  answers: Record<string, (asked: Asked) => Answer> = {},
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
    const path = new URL(request.url).pathname.replace(/^\/api\/plans\/1/, "");
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
      found?.(one) ?? (path === "" ? { body: plan } : { status: 404, body: refusal("not here") });
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
