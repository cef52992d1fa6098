import { useEffect, useState } from "react";
import { client, taken, type Schemas } from "../data/client";

type Line = Schemas["ClientLine"];
type Glance = Schemas["Glance"];
type Glances = Record<number, Glance | string>;

/** A glance at each plan: those that are known at once, the others one after the other. */
export function useGlances(lines: readonly Line[]): Glances {
  const [found, setFound] = useState<Glances>({});
  useEffect(() => {
    let wanted = true;
    const look = async () => {
      for (const { plan_id, glance } of lines) {
        if (glance) continue;
        const seen = await glanceAt(plan_id);
        if (!wanted) return;
        setFound((before) => ({ ...before, [plan_id]: seen }));
      }
    };
    void look();
    return () => {
      wanted = false;
    };
  }, [lines]);
  const known = lines.flatMap(({ plan_id, glance }) =>
    glance ? [[plan_id, glance] as const] : [],
  );
  return { ...found, ...Object.fromEntries(known) };
}

/** A plan that can't be read says why; the others are looked at all the same. */
async function glanceAt(plan_id: number): Promise<Glance | string> {
  try {
    const path = { params: { path: { plan_id } } };
    return await taken<Glance>(client.GET("/api/plans/{plan_id}/glance", path));
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}
