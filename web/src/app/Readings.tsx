import { client, taken, type Schemas } from "../data/client";
import { usePlan } from "../data/plan";
import { TextButton } from "../parts/Button";
import { money, number } from "../parts/format";
import * as S from "./Workings.styles";

type Props = { keyword: number; readings: Schemas["ReadingItem"][] };

/** What several sources say of one keyword, side by side; one is in use. */
export function Readings({ keyword, readings }: Props) {
  const { id, change } = usePlan();
  if (readings.length < 2) return null;
  const use = (reading: number) =>
    change(() =>
      taken(
        client.POST("/api/plans/{plan_id}/keywords/{keyword_id}/reading", {
          params: { path: { plan_id: id, keyword_id: keyword } },
          body: { id: reading },
        }),
      ),
    );
  const prefer = (origin: string) =>
    change(() =>
      taken(
        client.POST("/api/plans/{plan_id}/readings/prefer", {
          params: { path: { plan_id: id } },
          body: { origin },
        }),
      ),
    );
  const inUse = readings.find((reading) => reading.in_use);
  return (
    <S.Sum>
      <h3>What {readings.length} readings say</h3>
      <dl>
        {readings.map((reading) => (
          <S.Row key={reading.id} data-result={reading.in_use || undefined}>
            <dt>
              {reading.origin || "unknown"}
              {reading.origin_row ? `, row ${reading.origin_row}` : ""}
              <small>
                {money(reading.cpc_low)} – {money(reading.cpc_high)} a click,{" "}
                {reading.read_at.slice(0, 10)}
                {reading.basis && `, counted as ${reading.basis}`}
                {reading.area && `, ${reading.area}`}
              </small>
            </dt>
            <dd>
              <span>
                {volume(reading)}
                {reading.period === "day" && " a day"}
              </span>{" "}
              {reading.in_use ? (
                <small>in use</small>
              ) : (
                <TextButton
                  aria-label={`Use the reading of ${reading.origin}`}
                  onPress={() => void use(reading.id)}
                >
                  use
                </TextButton>
              )}
            </dd>
          </S.Row>
        ))}
      </dl>
      <S.About>
        <TextButton onPress={() => void prefer(inUse?.origin ?? "")}>
          prefer {inUse?.origin} everywhere
        </TextButton>{" "}
        <TextButton onPress={() => void prefer("")}>the newest everywhere</TextButton>
      </S.About>
    </S.Sum>
  );
}

function volume({ volume_low: low, volume_high: high }: Schemas["ReadingItem"]): string {
  if (low == null || high == null) return "no volume";
  return low === high ? number(high) : `${number(low)}–${number(high)}`;
}
