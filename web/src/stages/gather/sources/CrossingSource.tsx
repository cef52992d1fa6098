import { useEffect, useState } from "react";
import { Checkbox } from "react-aria-components";
import { client, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { Blank } from "../../../parts/Blank";
import { Button, MainButton, TextButton } from "../../../parts/Button";
import { Quiet, Small } from "../../../parts/Screen";
import { number, plural } from "../../../parts/format";
import type { Brought } from "../tray";
import * as S from "../Gather.styles";
import { useReading, wordsOf } from "../useReading";

type Part = Schemas["CrossingPart"];
type Props = { onTray: Brought };

/** Lists of words crossed into keywords, written as a sentence. */
export function CrossingSource({ onTray }: Props) {
  const { summary } = usePlan();
  const { read, path } = useReading();
  const { values } = summary.brief;
  const [parts, setParts] = useState<Part[]>(() => [
    {
      words: [values.offer_name, ...values.more_offers.map((o) => o.name)].filter(Boolean),
      on: true,
      optional: false,
    },
    { words: ["cost", "quote", "specialist"], on: true, optional: true },
    { words: [...values.places, "near me"], on: true, optional: true },
  ]);
  const [anyOrder, setAnyOrder] = useState(false);
  const [made, setMade] = useState<Schemas["CrossingAnswer"] | null>(null);
  const [why, setWhy] = useState("");
  const recipes = usePlanQuery("/recipes");
  const question = { parts, any_order: anyOrder };
  const asked = JSON.stringify(question);

  useEffect(() => {
    let wanted = true;
    void taken(
      client.POST("/api/plans/{plan_id}/gather/crossing", {
        ...path,
        body: JSON.parse(asked) as Schemas["CrossingQuestion"],
      }),
    )
      .then(
        (answer) => [answer, ""] as const,
        (error: Error) => [null, error.message] as const,
      )
      .then(([answer, said]) => {
        if (!wanted) return;
        setMade(answer);
        setWhy(said);
      });
    return () => {
      wanted = false;
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the path only holds the plan's id
  }, [asked, path.params.path.plan_id]);

  const set = (at: number, some: Partial<Part>) =>
    setParts(parts.map((part, i) => (i === at ? { ...part, ...some } : part)));
  const bring = () =>
    void read(
      "the crossing",
      () =>
        taken(
          client.POST("/api/plans/{plan_id}/gather/crossing/tray", { ...path, body: question }),
        ),
      onTray,
    );
  return (
    <>
      <h2>Crossing</h2>
      <S.Sentence>
        {parts.map((part, at) => (
          <CrossList key={at} at={at} part={part} onChange={(some) => set(at, some)} />
        ))}
        <TextButton
          isDisabled={parts.length >= 6}
          onPress={() => setParts([...parts, { words: [], on: true, optional: true }])}
        >
          another list
        </TextButton>
      </S.Sentence>
      <S.Line>
        <MainButton isDisabled={!made?.count} onPress={bring}>
          Put {number(made?.count ?? 0)} into the tray
        </MainButton>
        <Tick label="in any order" about="In any order" is={anyOrder} onChange={setAnyOrder} />
        <Quiet role="status">
          {made
            ? `${plural(made.count, "new keyword")}; left out: ${plural(made.doubles, "silly double")}, ${number(made.known)} already there`
            : why || "nothing to cross"}
        </Quiet>
      </S.Line>
      <S.Preview aria-label="What the crossing makes">
        {made?.preview.map((text) => (
          <li key={text}>{text}</li>
        ))}
        {made && made.count > made.preview.length && (
          <li>… and {number(made.count - made.preview.length)} more</li>
        )}
      </S.Preview>
      <S.Line>
        <SaveCrossing parts={parts} />
        {recipes.data?.map((recipe) => (
          <TextButton key={recipe.id} onPress={() => setParts(recipe.parts)}>
            {recipe.name}
          </TextButton>
        ))}
      </S.Line>
      <Small>
        A word twice or two places in one keyword are silly doubles and are left out; so is what the
        sheet has already.
      </Small>
    </>
  );
}

type ListProps = { at: number; part: Part; onChange: (some: Partial<Part>) => void };

/** One list of words, whether it takes part, and whether it may be left out. */
function CrossList({ at, part, onChange }: ListProps) {
  return (
    <S.CrossPart data-off={!part.on || undefined}>
      <span>
        {at > 0 && <i>× </i>}
        <Blank
          label={`List ${at + 1}, words between commas`}
          value={part.words.join(", ")}
          placeholder="words, between commas"
          onCommit={(text) => {
            onChange({ words: wordsOf(text) });
            return true;
          }}
        />
      </span>
      <small>
        <Tick
          label="on"
          about={`List ${at + 1} takes part`}
          is={part.on ?? true}
          onChange={(on) => onChange({ on })}
        />
        <Tick
          label="may be left out"
          about={`List ${at + 1} may be left out`}
          is={part.optional ?? false}
          onChange={(optional) => onChange({ optional })}
        />
      </small>
    </S.CrossPart>
  );
}

/** Keeps the lists under a name, to run them again. */
function SaveCrossing({ parts }: { parts: Part[] }) {
  const send = usePlanChange();
  const [name, setName] = useState("");
  const save = async () => {
    if (await send("post", "/recipes", { name: name.trim(), parts })) setName("");
  };
  return (
    <>
      <input
        aria-label="Name of the crossing"
        placeholder="name it, to run it again"
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
        onKeyDown={(event) => event.stopPropagation()}
      />
      <Button isDisabled={!name.trim()} onPress={() => void save()}>
        Save
      </Button>
    </>
  );
}

type TickProps = { label: string; about: string; is: boolean; onChange: (is: boolean) => void };

function Tick({ label, about, is, onChange }: TickProps) {
  return (
    <Checkbox aria-label={about} isSelected={is} onChange={onChange}>
      <S.Box aria-hidden>{is ? "✓" : ""}</S.Box> {label}
    </Checkbox>
  );
}
