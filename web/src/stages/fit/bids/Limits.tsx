import type { ReactNode } from "react";
import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { Blank } from "../../../parts/Blank";
import { Choice } from "../../../parts/Choice";
import { Sentence } from "../../../parts/Sentence";
import { A_NUMBER, count, money, number, parsed, percent } from "../../../parts/format";
import { ItemsAway } from "../../../parts/TakeAway";
import * as S from "./Panels.styles";

type Limit = Schemas["LimitsView"]["limits"][number];

/** What the fit keeps to beside the purse, as sentences, each with what it costs. */
export function Limits() {
  const { summary, changeBrief } = usePlan();
  const view = usePlanQuery("/fit/limits").data;
  const arrange = usePlanQuery("/arrange").data;
  const { values } = summary.brief;
  const cost = (limit: Limit["limit"], campaign: number | null = null) => (
    <Cost
      of={view?.limits.find((one) => one.limit === limit && one.campaign_id === campaign)}
      goal={values.goal}
    />
  );
  return (
    <S.Panel tabIndex={0} role="region" aria-label="Limits of the fit">
      <S.Sentences>
        <p>
          At most{" "}
          <Sum
            label="Most keywords"
            value={values.max_keywords}
            placeholder="any number of"
            onPut={(value) =>
              changeBrief({ max_keywords: value === null ? null : Math.round(value) })
            }
          />{" "}
          keywords run{cost("max_keywords")}
        </p>
        <p>
          at least{" "}
          <Sum
            label="Least clicks for each that runs"
            value={values.min_clicks || null}
            placeholder="no"
            onPut={(value) => changeBrief({ min_clicks: value ?? 0 })}
          />{" "}
          clicks a month for each that runs{cost("min_clicks")}
        </p>
        <p>
          no bid above{" "}
          <Sum
            label="Highest price of a click"
            value={values.max_cpc}
            placeholder="its ceiling"
            digits={2}
            onPut={(value) => changeBrief({ max_cpc: value })}
          />{" "}
          {values.currency}
          {cost("max_cpc")}
        </p>
        {arrange?.campaigns.map((campaign) => (
          <OfCampaign key={campaign.id} campaign={campaign} cost={cost} />
        ))}
        {arrange && <Scouting campaigns={arrange.campaigns} cost={cost} />}
      </S.Sentences>
      {view && <Attention view={view} />}
    </S.Panel>
  );
}

type CampaignProps = {
  campaign: Schemas["ArrangeView"]["campaigns"][number];
  cost: (limit: Limit["limit"], campaign: number | null) => ReactNode;
};

function OfCampaign({ campaign, cost }: CampaignProps) {
  const send = usePlanChange();
  const edit = (body: Schemas["CampaignEdit"]) =>
    send("post", "/arrange/campaigns/{campaign_id}", body, { campaign_id: campaign.id });
  return (
    <p>
      {campaign.name} gets at least{" "}
      <Sum
        label={`Least money for ${campaign.name}`}
        value={campaign.least_spend || null}
        placeholder="nothing"
        digits={2}
        onPut={(value) => edit({ least_spend: value ?? 0 })}
      />
      {cost("least", campaign.id)} and at most{" "}
      <Sum
        label={`Most money for ${campaign.name}`}
        value={campaign.most_spend}
        placeholder="all of it"
        digits={2}
        onPut={(value) => edit({ most_spend: value })}
      />
      {cost("most", campaign.id)}
    </p>
  );
}

type ScoutingProps = {
  campaigns: Schemas["ArrangeView"]["campaigns"];
  cost: CampaignProps["cost"];
};

/** The share of the purse that is set aside to find new terms, and for which campaign. */
function Scouting({ campaigns, cost }: ScoutingProps) {
  const send = usePlanChange();
  const scout = campaigns.find((one) => one.scouting_share !== null);
  const put = (campaign: number, scouting_share: number | null) =>
    send("post", "/arrange/campaigns/{campaign_id}", { scouting_share }, { campaign_id: campaign });
  if (campaigns.length < 2) return null;
  return (
    <Sentence>
      set aside{" "}
      <Sum
        label="Share set aside for scouting, per cent"
        value={scout ? (scout.scouting_share ?? 0) * 100 : null}
        placeholder="nothing"
        onPut={(value) => put((scout ?? campaigns.at(-1)!).id, value === null ? null : value / 100)}
      />{" "}
      % for scouting
      {scout && (
        <>
          {" "}
          in{" "}
          <Choice
            label="Which campaign scouts"
            inline
            value={String(scout.id)}
            options={campaigns.map((one) => ({ id: String(one.id), name: one.name }))}
            onChange={(id) => void put(Number(id), scout.scouting_share)}
          />
          {cost("scouting", scout.id)}
        </>
      )}
    </Sentence>
  );
}

type SumProps = {
  label: string;
  value: number | null;
  placeholder: string;
  digits?: number;
  onPut: (value: number | null) => Promise<boolean>;
};

function Sum({ label, value, placeholder, digits = 0, onPut }: SumProps) {
  return (
    <Blank
      label={label}
      value={value === null ? "" : number(value, Number.isInteger(value) ? 0 : digits || 1)}
      placeholder={placeholder}
      onCommit={(text) => {
        if (text.trim() === "") return onPut(null);
        const typed = parsed(text);
        return typed === null ? A_NUMBER : onPut(typed);
      }}
    />
  );
}

type CostProps = { of: Limit | undefined; goal: string };

function Cost({ of, goal }: CostProps) {
  if (!of) return null;
  const isMoney = goal === "profit" || goal === "revenue";
  return (
    <S.Cost data-binds={of.costs > 0 || undefined}>
      {of.costs > 0
        ? ` : ${isMoney ? money(of.costs) : count(of.costs)} ${goal} fewer`
        : " : costs nothing"}
    </S.Cost>
  );
}

type AttentionProps = { view: Schemas["LimitsView"] };

/** What looking after fewer keywords would cost. */
function Attention({ view }: AttentionProps) {
  const { changeBrief, summary } = usePlan();
  const all = view.attention_value.at(-1) ?? 0;
  const points = view.attention_keywords.map((keywords, at) => ({
    keywords,
    value: view.attention_value[at]!,
    gap: view.attention_gap[at]!,
  }));
  const set = (keywords: number) => void changeBrief({ max_keywords: keywords });
  if (points.length === 0) return null;
  return (
    <S.Figures>
      <thead>
        <tr>
          <th scope="col">
            <span>With at most so many</span>
            <ItemsAway
              label="With at most so many keywords"
              items={points}
              columns={{
                keywords: (p) => p.keywords,
                [view.goal]: (p) => p.value,
                "or so much more, %": (p) => p.gap * 100,
              }}
            />
          </th>
          <th scope="col">{view.goal}</th>
          <th scope="col">of all</th>
        </tr>
      </thead>
      <tbody>
        {points.map(({ keywords, value, gap }, at) => (
          <tr key={keywords}>
            <th scope="row">
              {at === points.length - 1 ? (
                `${number(keywords)}, all that run`
              ) : (
                <S.Set
                  aria-label={`At most ${number(keywords)} keywords`}
                  isDisabled={summary.brief.values.max_keywords === keywords}
                  onPress={() => set(keywords)}
                >
                  {number(keywords)}
                </S.Set>
              )}
            </th>
            <td>
              {count(value)}
              {gap > 0 && <small> or up to {percent(gap)} more</small>}
            </td>
            <td>{all > 0 ? percent(value / all, 0) : ""}</td>
          </tr>
        ))}
      </tbody>
    </S.Figures>
  );
}
