import type { Schemas } from "../../../data/client";
import { usePlanChange } from "../../../data/usePlanChange";
import { Blank } from "../../../parts/Blank";
import { TextButton } from "../../../parts/Button";
import { number, plural } from "../../../parts/format";
import { dayOf } from "../../../parts/days";
import * as S from "../ads/ads.styles";
import * as A from "../Arrange.styles";

type Props = { pages: Schemas["PagesView"] };

/** Every page whose text is known: its address, when it was read, how many groups lead there. */
export function AllPages({ pages: { pages } }: Props) {
  const send = usePlanChange();
  return (
    <S.Leaf>
      <A.Plain aria-label="All pages">
        {pages.map((page) => (
          <li key={page.id}>
            <Blank
              label={`Address of ${page.title || page.address}`}
              value={page.address}
              onCommit={(address) =>
                send("post", "/arrange/pages/{page_id}", { address }, { page_id: page.id })
              }
            />{" "}
            <b dir="auto">{page.title}</b>{" "}
            <TextButton
              aria-label={`Remove the page ${page.address}`}
              onPress={() => void send("post", "/arrange/pages/remove", { ids: [page.id] })}
            >
              remove
            </TextButton>
            <br />
            <small>
              read {dayOf(page.at)}, {number(page.words)} words,{" "}
              {page.groups.length === 0
                ? "no group leads here"
                : `${plural(page.groups.length, "group")} lead${page.groups.length === 1 ? "s" : ""} here`}
            </small>
          </li>
        ))}
      </A.Plain>
      {pages.length === 0 && (
        <p>No page is known yet. Read pages (r), and what they say is held against the groups.</p>
      )}
    </S.Leaf>
  );
}
