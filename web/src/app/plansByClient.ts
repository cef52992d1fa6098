import type { Schemas } from "../data/client";

export type Item = Schemas["PlanItem"];
export type Made = { id: number; notices?: string[] };
/** A request that makes a plan. */
export type Making = Promise<{ data?: Made; error?: unknown; response: Response }>;
export type Client = { client_id: number; client: string; plans: Item[] };

/** Plans under the clients they are for; they come client by client. */
export function byClient(plans: Item[]): Client[] {
  const found: Client[] = [];
  for (const plan of plans) {
    const last = found.at(-1);
    if (last?.client_id === plan.client_id) last.plans.push(plan);
    else found.push({ client_id: plan.client_id, client: plan.client, plans: [plan] });
  }
  return found;
}
