import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { client, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { useSaying } from "../../../data/saying";
import { Button, MainButton, TextButton } from "../../../parts/Button";
import { Foot, Sheet } from "../../../parts/Sheet";
import { number, plural } from "../../../parts/format";
import * as A from "../Arrange.styles";

type Read = Schemas["PageRead"];
type Props = {
  open: boolean;
  onOpen: (open: boolean) => void;
  /** The group the first page is for, and where that one already leads. */
  group?: { id: number; label: string; address: string };
};

/** Pages of the site, from files or pasted: what was found is shown before it is kept. */
export const ReadSheet = ({ open, onOpen, group }: Props) => (
  <Sheet title="Read pages of the site" open={open} onOpen={onOpen} width={640}>
    <Reading group={group} onDone={() => onOpen(false)} />
  </Sheet>
);

function Reading({ group, onDone }: Pick<Props, "group"> & { onDone: () => void }) {
  const { id } = usePlan();
  const send = usePlanChange();
  const { complain } = useSaying();
  const [pasted, setPasted] = useState("");
  const [pages, setPages] = useState<readonly Read[]>([]);
  const read = async (files: File[]) => {
    const form = new FormData();
    for (const file of files) form.append("file", file);
    const path = { params: { path: { plan_id: id } } };
    const body = { body: form as never, bodySerializer: (sent: unknown) => sent as never };
    try {
      const found = await taken(
        client.POST("/api/plans/{plan_id}/arrange/pages/read", { ...path, ...body }),
      );
      // what is read for a group stands where its ads lead already
      const at = group?.address;
      setPages([
        ...pages,
        ...found.pages.map((page, turn) =>
          at && turn === 0 && pages.length === 0 ? { ...page, address: at } : page,
        ),
      ]);
    } catch (error) {
      complain(error);
    }
  };
  const good = pages.filter(({ refused }) => refused === "");
  const keep = () => {
    const values = good.map(({ address, title, headings, text }) => ({
      ...{ address, title, headings, text },
    }));
    void send("post", "/arrange/pages", { pages: values, group_id: group?.id ?? null }).then(
      (took) => took && onDone(),
    );
  };
  const readPasted = () => {
    void read([new File([pasted], group?.address || "pasted", { type: "text/plain" })]);
    setPasted("");
  };
  const at = (place: number, address: string) =>
    setPages(pages.map((page, other) => (other === place ? { ...page, address } : page)));
  return (
    <>
      {group && <p>The first is where the ads of {group.label} lead.</p>}
      <A.Line>
        <FileTrigger
          allowsMultiple
          acceptedFileTypes={[".html", ".htm", ".txt", ".md", "text/html", "text/plain"]}
          onSelect={(files) => files && void read([...files])}
        >
          <Button>choose files …</Button>
        </FileTrigger>
        <A.Soft>HTML or text, several at once</A.Soft>
      </A.Line>
      <A.Paste
        aria-label="The page’s text, pasted"
        rows={4}
        value={pasted}
        placeholder="or paste a page: its HTML, or its text with the title first"
        onChange={(event) => setPasted(event.currentTarget.value)}
      />
      {pasted.trim() !== "" && <TextButton onPress={readPasted}>read what is pasted</TextButton>}
      {pages.length > 0 && (
        <A.Lines aria-label="Pages read">
          {pages.map((page, place) => (
            <li key={place}>
              {page.refused ? (
                <A.Wrong>{page.refused}</A.Wrong>
              ) : (
                <A.Line>
                  <input
                    aria-label={`Address of ${page.name}`}
                    value={page.address}
                    onChange={(event) => at(place, event.currentTarget.value)}
                  />
                  <span dir="auto">{page.title || "no title"}</span>
                  <A.Soft>
                    {plural(page.headings?.length ?? 0, "heading")}, {number(page.words)} words
                    {page.there && "; takes the place of what was read before"}
                  </A.Soft>
                </A.Line>
              )}
            </li>
          ))}
        </A.Lines>
      )}
      <Foot>
        <Button onPress={onDone}>Leave them</Button>
        <MainButton isDisabled={good.length === 0} onPress={keep}>
          Keep {plural(good.length, "page")}
        </MainButton>
      </Foot>
    </>
  );
}
