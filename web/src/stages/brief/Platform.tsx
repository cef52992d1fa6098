import { useQuery } from "@tanstack/react-query";
import { FileTrigger } from "react-aria-components";
import { client, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { A_NUMBER, parsed } from "../../parts/format";
import * as S from "./Brief.styles";
import { hundredths, plain, pricings } from "./fields";

type Profile = Schemas["ProfileValues"];

/** The ad platform's rules: one that ships, or one's own. */
export function Platform() {
  const { id, summary, changeBrief, changeAssumption } = usePlan();
  const { complain } = useSaying();
  const { values } = summary.brief;
  const shipped = useQuery({
    queryKey: ["profiles"],
    queryFn: () => taken(client.GET("/api/profiles")),
    staleTime: Infinity,
  });
  const usual = shipped.data?.[0];
  const now = values.profile ?? usual;
  if (!now || !shipped.data) return null;
  const isOwn = !shipped.data.some((profile) => profile.name === now.name);
  const options = [...shipped.data, ...(isOwn ? [now] : [])].map((profile) => ({
    id: profile.name,
    name: profile.name,
  }));
  const put = (profile: Profile) =>
    changeBrief({
      profile: profile.name === usual?.name ? null : profile,
      pricing: profile.pricing,
    });
  const own = (some: Partial<Profile>) =>
    put({ ...now, name: isOwn ? now.name : `${now.name}, our own`, ...some });
  const figure = (label: string, name: "min_bid" | "bid_step" | "keywords_per_group") => (
    <Blank
      label={label}
      value={plain(summary.brief.assumptions[name] ?? now[name])}
      assumed={values.profile === null && !(name in summary.brief.assumptions)}
      onCommit={async (text) => {
        const value = parsed(text);
        if (value === null) return A_NUMBER;
        if (!(await own({ [name]: value }))) return false;
        // from here on the platform says it, not a change of the plan's own
        return name in summary.brief.assumptions ? changeAssumption(name, null) : true;
      }}
    />
  );
  const load = async (file: File | undefined) => {
    if (!file) return;
    try {
      await changeBrief({ profile: JSON.parse(await file.text()) as Profile });
    } catch (error) {
      complain(error);
    }
  };
  return (
    <S.Sentence>
      Ads run on{" "}
      <Choice
        label="Ad platform"
        value={now.name}
        options={options}
        inline
        assumed={values.profile === null}
        onChange={(name) => {
          const profile = shipped.data.find((one) => one.name === name);
          if (profile) void put(profile);
        }}
      />
      , where a click costs{" "}
      <Choice
        label="How clicks are priced"
        value={values.pricing}
        options={pricings}
        inline
        assumed={summary.brief.not_entered.includes("pricing")}
        onChange={(pricing) => void changeBrief({ pricing })}
      />
      , bids go from {figure("Least bid", "min_bid")} in steps of {figure("Bid step", "bid_step")},
      the platform may raise a bid by{" "}
      <Blank
        label="How far the platform may raise a bid, per cent"
        value={hundredths(now.raises)}
        assumed={values.profile === null}
        onCommit={(text) => {
          const value = parsed(text);
          return value === null ? A_NUMBER : own({ raises: value / 100 });
        }}
      />{" "}
      %, and a group holds at most {figure("Keywords a group", "keywords_per_group")} keywords.{" "}
      <S.Aside>
        <a href={`/api/plans/${id}/profile.json`} download>
          save these rules
        </a>{" "}
        <FileTrigger acceptedFileTypes={[".json"]} onSelect={(files) => void load(files?.[0])}>
          <TextButton>load others</TextButton>
        </FileTrigger>
      </S.Aside>
    </S.Sentence>
  );
}
