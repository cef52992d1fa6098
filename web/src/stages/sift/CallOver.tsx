import type { CallName } from "../../data/client";
import { Button, MainButton } from "../../parts/Button";
import { Foot, Sheet } from "../../parts/Sheet";
import { plural } from "../../parts/format";
import { useCalls } from "./useSift";

/** Keywords with a word, some of which are called otherwise already. */
export type Over = { call: CallName; word: string; free: number[]; all: number[] };

type Props = { over: Over | null; onDone: () => void };

/** Asks before calls that were made are made anew. */
export function CallOver({ over, onDone }: Props) {
  const { callAs } = useCalls();
  if (!over) return null;
  const { call, word, free, all } = over;
  const run = (ids: number[]) => {
    onDone();
    void callAs(call, ids, { by: "word" });
  };
  const called = all.length - free.length;
  return (
    <Sheet title={`${call}: every keyword with “${word}”`} open onOpen={onDone}>
      <p>
        {plural(called, "keyword")} of {all.length} {called === 1 ? "is" : "are"} called otherwise
        already.
      </p>
      <Foot>
        <Button onPress={onDone}>Leave it</Button>
        <Button onPress={() => run(all)}>All {all.length}</Button>
        {/* eslint-disable-next-line jsx-a11y/no-autofocus -- the planner just asked for it */}
        <MainButton autoFocus onPress={() => run(free)} isDisabled={free.length === 0}>
          Only the {free.length} others
        </MainButton>
      </Foot>
    </Sheet>
  );
}
