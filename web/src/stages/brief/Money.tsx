import { usePlan } from "../../data/plan";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { A_NUMBER, money, parsed, parsedPer } from "../../parts/format";
import * as S from "./Brief.styles";
import { hundredths, plain } from "./fields";

/** The monthly money: the purse itself, or a sum with tax and a fee in it. */
export function Money() {
  const { summary, changeBrief, changePurse } = usePlan();
  const { values, not_entered, purse } = summary.brief;
  const { gross_spend: gross, currency } = values;
  if (gross === null)
    return (
      <>
        We spend{" "}
        <Blank
          label="Monthly spend"
          value={plain(values.monthly_spend)}
          assumed={not_entered.includes("monthly_spend")}
          onCommit={(text) => {
            const typed = parsedPer(text);
            return typed === null ? A_NUMBER : changePurse(typed.value, typed.per);
          }}
        />{" "}
        {currency} a month on search ads{" "}
        <S.Aside>
          or typed as 20 a day, 140 a week ·{" "}
          <TextButton onPress={() => void changeBrief({ gross_spend: values.monthly_spend })}>
            tax or a fee is in it
          </TextButton>
        </S.Aside>
      </>
    );
  const figure = (label: string, value: number, send: (value: number) => Promise<boolean>) => (
    <Blank
      label={label}
      value={plain(value)}
      onCommit={(text) => {
        const typed = parsed(text);
        return typed === null ? A_NUMBER : send(typed);
      }}
    />
  );
  return (
    <>
      Of {figure("Monthly sum, tax and fee in it", gross, (v) => changeBrief({ gross_spend: v }))}{" "}
      {currency} a month, {figure("Consultant's fee", values.fee, (v) => changeBrief({ fee: v }))}{" "}
      is the consultant&rsquo;s fee and the rest carries{" "}
      <Blank
        label="Tax on it, per cent"
        value={hundredths(values.tax_share)}
        onCommit={(text) => {
          const typed = parsed(text);
          return typed === null ? A_NUMBER : changeBrief({ tax_share: typed / 100 });
        }}
      />{" "}
      % tax: <b>{money(purse)}</b> is left for clicks{" "}
      <S.Aside>
        <TextButton onPress={() => void changeBrief({ gross_spend: null, monthly_spend: purse })}>
          count the clicks&rsquo; money alone
        </TextButton>
      </S.Aside>
    </>
  );
}
