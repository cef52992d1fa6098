import type { Schemas } from "../../../data/client";
import { usePlanChange } from "../../../data/usePlanChange";
import { useSaying } from "../../../data/saying";
import { Blank } from "../../../parts/Blank";
import { TextButton } from "../../../parts/Button";
import { number, percent } from "../../../parts/format";
import { dayOf } from "../../../parts/days";
import * as S from "../ads/ads.styles";
import * as A from "../Arrange.styles";
import { placesInWords } from "./pageWords";

type Props = {
  pages: Schemas["PagesView"];
  group: number;
  onRead: () => void;
};

/** Where a group's ads lead, which of its words stand there, and what to ask for. */
export function GroupPage({ pages, group, onRead }: Props) {
  const send = usePlanChange();
  const { say, complain } = useSaying();
  const found = pages.groups.find(({ group_id }) => group_id === group);
  if (!found)
    return (
      <S.Leaf>
        <p>The group holds no kept keyword: nobody is led anywhere yet.</p>
      </S.Leaf>
    );
  const page = pages.pages.find(({ id }) => id === found.page_id);
  const lead = (address: string) =>
    send("post", "/arrange/groups/{group_id}", { page: address }, { group_id: group });
  const copy = () =>
    void navigator.clipboard.writeText(found.sentence).then(() => say("copied"), complain);
  return (
    <S.Leaf>
      <A.Say>
        Its ads lead to{" "}
        <Blank
          label="Landing page of the group"
          value={found.own}
          placeholder={found.address || "a page of the site"}
          onCommit={lead}
        />
        {!found.own && found.address && <A.Soft>, the campaign’s</A.Soft>}
        {page && (
          <A.Soft>
            {" "}
            “{page.title}”, read {dayOf(page.at)}
          </A.Soft>
        )}
      </A.Say>
      {found.better && (
        <p>
          <A.Straw>{found.better}</A.Straw> says {number(found.better_said)} of{" "}
          {number(found.words.length)}
          {page && `, this says ${number(found.said)}`}.{" "}
          <TextButton onPress={() => void lead(found.better!)}>lead there</TextButton>
        </p>
      )}
      {found.address === "" && <A.Wrong>no page: an ad must lead somewhere</A.Wrong>}
      {found.address !== "" && !page && (
        <p>
          What stands there isn’t known yet.{" "}
          <TextButton onPress={onRead}>read the page …</TextButton>
        </p>
      )}
      <S.Heading>What it says</S.Heading>
      <S.Said>
        {found.words.map(({ word, share, where }) => (
          <li key={word} data-not={where.length === 0 || undefined}>
            <span role="img" aria-label={where.length > 0 ? "said" : "not said"}>
              {where.length > 0 ? "✓" : "–"}
            </span>
            <span>
              {word}{" "}
              <small>
                {percent(share, 0)} of the clicks; {placesInWords(where, found)}
              </small>
            </span>
          </li>
        ))}
      </S.Said>
      {found.sentence && (
        <>
          <S.Heading>To send to whoever writes it</S.Heading>
          <p>{found.sentence}</p>
          <S.Ways>
            <TextButton onPress={copy}>copy the sentence</TextButton>
          </S.Ways>
        </>
      )}
    </S.Leaf>
  );
}
