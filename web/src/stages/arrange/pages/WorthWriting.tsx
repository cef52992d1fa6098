import type { Schemas } from "../../../data/client";
import { count, number, plural } from "../../../parts/format";
import { useAsking } from "../../../app/asked";
import { Traced } from "../../../parts/Traced";
import { ItemsAway } from "../../../parts/TakeAway";
import * as S from "../ads/ads.styles";
import * as A from "../Arrange.styles";

type Item = Schemas["WorthWritingItem"];
type Props = { pages: Schemas["PagesView"] };

/** Words that several kept keywords ask for and no page says, by the customers behind them. */
export function WorthWriting({ pages: { worth_writing: words, pages } }: Props) {
  const { ask } = useAsking();
  return (
    <S.Leaf>
      <S.Ways>
        <span>
          {pages.length === 0
            ? "No page is known yet, so none says these words."
            : `Words of kept keywords that none of ${plural(pages.length, "page")} says.`}
        </span>
        <ItemsAway label="Pages worth writing" items={words} columns={leaves} />
      </S.Ways>
      <A.Plain aria-label="Words no page says">
        {words.map((one) => (
          <li key={one.word}>
            <b>{one.word}</b>{" "}
            <Traced onPress={() => ask({ kind: "word", word: one.word })}>
              {count(one.customers)} customers, {number(one.searches)} searches a month
            </Traced>
            <br />
            <small>
              {plural(one.keywords, "keyword")}: {one.texts.join(", ")}
              {one.keywords > one.texts.length && " …"}
            </small>
          </li>
        ))}
      </A.Plain>
      {words.length === 0 && <p>Every word that several kept keywords ask for stands somewhere.</p>}
    </S.Leaf>
  );
}

const leaves: Record<string, (one: Item) => string | number> = {
  word: ({ word }) => word,
  keywords: ({ keywords }) => keywords,
  "customers a month": ({ customers }) => customers,
  "searches a month": ({ searches }) => searches,
  "such as": ({ texts }) => texts.join(", "),
};
