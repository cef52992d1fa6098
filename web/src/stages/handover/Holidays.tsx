import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { client, taken } from "../../data/client";
import { usePlan } from "../../data/plan";
import { Choice, type Option } from "../../parts/Choice";

const names = new Intl.DisplayNames("en", { type: "region" });

/** Countries by name, for one is looked for by its first letters. */
function named(countries: Record<string, Record<string, string>>): Option<string>[] {
  const found = Object.keys(countries).map((id) => ({ id, name: names.of(id) ?? id }));
  return found.sort((a, b) => a.name.localeCompare(b.name));
}

/** Whose public holidays are told where a start meets one: a country's, or those of a part of it. */
export function Holidays() {
  const { summary, changeBrief } = usePlan();
  const where = summary.brief.values.holidays_of;
  const [country = "", part = ""] = where.split("-");
  const { data } = useQuery({
    queryKey: ["holidays"],
    queryFn: () => taken(client.GET("/api/holidays")),
    staleTime: Infinity,
  });
  const countries = useMemo(() => named(data?.countries ?? {}), [data]);
  const parts = Object.entries(data?.countries[country] ?? {});
  const become = (holidays_of: string) => void changeBrief({ holidays_of });
  return (
    <>
      public holidays of{" "}
      <Choice
        label="Country whose public holidays are told"
        value={country}
        options={[{ id: "", name: "no country" }, ...countries]}
        onChange={become}
      />
      {parts.length > 0 && (
        <>
          ,{" "}
          <Choice
            label="Part of the country"
            value={part}
            options={[{ id: "", name: "all of it" }, ...parts.map(([id, name]) => ({ id, name }))]}
            onChange={(id) => become(id ? `${country}-${id}` : country)}
          />
        </>
      )}{" "}
      are told
    </>
  );
}
