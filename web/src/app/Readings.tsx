import { type Schemas } from "../data/client";
import { usePlan } from "../data/plan";
import { usePlanChange } from "../data/usePlanChange";
import { TextButton } from "../parts/Button";
import { Choice, type Option } from "../parts/Choice";
import { money, number } from "../parts/format";
import * as S from "./Workings.styles";

type Props = {
  keyword: number;
  readings: Schemas["ReadingItem"][];
  apart: Schemas["Apart"] | null | undefined;
};

/** What several sources say of one keyword, side by side; one is in use. */
export function Readings({ keyword, readings, apart }: Props) {
  const { summary } = usePlan();
  const send = usePlanChange();
  const use = (reading: number, part: Use) =>
    send(
      "post",
      "/keywords/{keyword_id}/reading",
      { id: reading, use: part },
      { keyword_id: keyword },
    );
  const setRule = (rule: string) => send("post", "/readings/rule", { rule });
  const held = summary.brief.reading_rule;
  if (readings.length < 2) return null;
  const own = readings.filter((reading) => !reading.made);
  const sources = own.map((reading) => `of ${reading.origin}`);
  const rules: Option<string>[] = [
    { id: "newest", name: "the newest", about: "Whatever was read last." },
    { id: "mean", name: "the mean", about: "Of all sources, one basis and period." },
    ...[...new Set([...sources, ...(held.startsWith("of ") ? [held] : [])])].map((rule) => ({
      id: rule,
      name: `those ${rule}`,
      about: "Wherever it has any.",
    })),
  ];
  return (
    <S.Sum>
      <h3>What {readings.length} readings say</h3>
      <dl>
        {readings.map((reading) => (
          <S.Row
            key={reading.id}
            data-result={reading.in_use || reading.prices_in_use || undefined}
          >
            <dt>
              {reading.origin || "unknown"}
              {reading.origin_row ? `, row ${reading.origin_row}` : ""}
              <small>
                {reading.cpc_low == null && reading.cpc_high == null
                  ? "no price"
                  : `${money(reading.cpc_low)} – ${money(reading.cpc_high)} a click`}
                , {reading.read_at.slice(0, 10)}
                {reading.basis && `, counted as ${reading.basis}`}
                {reading.area && `, ${reading.area}`}
              </small>
            </dt>
            <dd>
              <span>
                {volume(reading)}
                {reading.period === "day" && " a day"}
                {reading.shown_at_bid != null && ` shown at ${money(reading.shown_at_bid)}`}
              </span>{" "}
              <InUse reading={reading} onUse={(part) => void use(reading.id, part)} />
            </dd>
          </S.Row>
        ))}
      </dl>
      <S.About>
        {apart?.volume != null && `The sources' searches differ ${number(apart.volume, 1)} times`}
        {apart?.price != null && `, their prices ${number(apart.price, 1)} times`}
        {(apart?.volume != null || apart?.price != null) && ". "}
        In the whole plan we use{" "}
        <Choice
          label="Which readings are used"
          value={held}
          options={rules}
          inline
          onChange={(rule) => void setRule(rule)}
        />
        .
      </S.About>
    </S.Sum>
  );
}

type Reading = Schemas["ReadingItem"];
type Use = NonNullable<Schemas["ReadingChoice"]["use"]>;

/** What a reading is in use for, and what else it could be. */
function InUse({ reading, onUse }: { reading: Reading; onUse: (part: Use) => void }) {
  const parts = [
    { part: "searches", says: reading.volume_high != null, used: reading.in_use },
    {
      part: "prices",
      says: reading.cpc_low != null || reading.cpc_high != null,
      used: reading.prices_in_use,
    },
  ] as const;
  const said = parts.filter((one) => one.says || one.used);
  const used = said.filter((one) => one.used);
  const free = said.filter((one) => !one.used);
  return (
    <>
      {used.length > 0 && (
        <small>
          {free.length > 0 ? `${used.map((one) => one.part).join(", ")} in use` : "in use"}
        </small>
      )}
      {free.length > 1 && (
        <TextButton
          aria-label={`Use the reading of ${reading.origin}`}
          onPress={() => onUse("both")}
        >
          use
        </TextButton>
      )}{" "}
      {free.map(({ part }) => (
        <TextButton
          key={part}
          aria-label={`Use the ${part} of ${reading.origin}`}
          onPress={() => onUse(part)}
        >
          {free.length > 1 ? part : `use its ${part}`}
        </TextButton>
      ))}
    </>
  );
}

function volume({ volume_low: low, volume_high: high }: Schemas["ReadingItem"]): string {
  if (low == null || high == null) return "no volume";
  return low === high ? number(high) : `${number(low)}–${number(high)}`;
}
