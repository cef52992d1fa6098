import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { Button, MainButton, TextButton } from "../../../parts/Button";
import { Choice } from "../../../parts/Choice";
import { Quiet, Small } from "../../../parts/Screen";
import type { Brought } from "../tray";
import * as S from "../Gather.styles";
import { useReading, wordsOf } from "../useReading";

type Props = { onTray: Brought };

/** The simulated keyword source: related keywords with figures, and what people type. */
export function AlmanacSource({ onTray }: Props) {
  const { summary } = usePlan();
  const { busy, read, path } = useReading();
  const [roots, setRoots] = useState(summary.brief.values.offer_name);
  const [near, setNear] = useState<"near" | "all">("all");
  const [typed, setTyped] = useState<string[] | null>(null);
  const known = useQuery({
    queryKey: ["categories"],
    queryFn: () => taken(client.GET("/api/gather/categories")),
    staleTime: Infinity,
  });
  const categories = (known.data ?? []).map(({ name, roots: words }) => ({
    id: name,
    name,
    about: words.join(", "),
  }));
  const words = wordsOf(roots);
  const page = (number: number): Promise<Schemas["TrayView"]> =>
    taken(
      client.POST("/api/plans/{plan_id}/gather/almanac", {
        ...path,
        body: { roots: words, page: number, near_only: near === "near", only_these: false },
      }),
    );
  const ask = (number = 0) =>
    read(
      "the almanac",
      () => page(number),
      (tray) => bringPage(tray, number),
    );
  const bringPage = (tray: Schemas["TrayView"], number: number) =>
    onTray(tray, tray.more ? () => page(number + 1) : undefined);
  const complete = () =>
    read(
      "what people type",
      () =>
        taken(
          client.GET("/api/plans/{plan_id}/gather/completions", {
            params: { ...path.params, query: { stem: words[0] ?? "" } },
          }),
        ),
      (answer) => setTyped(answer.texts),
    );
  return (
    <>
      <h2>Almanac</h2>
      <Small>
        A keyword source that ships with Milkwort and needs no network. <b>It is simulated</b>: its
        figures are made up, the same each time, and look as a real source&rsquo;s do.
      </Small>
      <S.Line>
        <input
          aria-label="Root words, between commas"
          value={roots}
          onChange={(event) => setRoots(event.currentTarget.value)}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === "Enter" && words.length) void ask();
          }}
          size={44}
        />
        <Choice
          label="Or a category"
          value=""
          options={[{ id: "", name: "or a category …" }, ...categories]}
          onChange={(name) =>
            setRoots(known.data?.find((c) => c.name === name)?.roots.join(", ") ?? roots)
          }
        />
        <Choice
          label="How near to the root"
          value={near}
          options={[
            { id: "all", name: "near and wide" },
            { id: "near", name: "near only", about: "Keywords that hold the whole root." },
          ]}
          onChange={setNear}
        />
        <MainButton isDisabled={!words.length || busy !== null} onPress={() => void ask()}>
          Ask the almanac
        </MainButton>
        <Button isDisabled={!words.length || busy !== null} onPress={() => void complete()}>
          What people type after it
        </Button>
        <Quiet role="status">{busy && `Asking for ${busy.what} …`}</Quiet>
      </S.Line>
      {typed && (
        <S.Preview aria-label="What people type">
          {typed.map((text) => (
            <li key={text}>
              <TextButton onPress={() => setRoots([...words, text].join(", "))}>{text}</TextButton>
            </li>
          ))}
        </S.Preview>
      )}
    </>
  );
}
