import { useState } from "react";
import { usePlanChange } from "../../data/usePlanChange";
import { Button, MainButton } from "../../parts/Button";
import { Field, Foot, Sheet } from "../../parts/Sheet";
import { plural } from "../../parts/format";

type Props = {
  open: boolean;
  onOpen: (open: boolean) => void;
  ids: number[];
  from: string;
  groups: string[];
  onMoved: () => void;
};

/** Where some keywords go: a group there is, or one that is made. */
export function MoveSheet({ open, onOpen, ids, ...rest }: Props) {
  return (
    <Sheet title={`Move ${plural(ids.length, "keyword")}`} open={open} onOpen={onOpen} width={420}>
      <Move ids={ids} onDone={() => onOpen(false)} {...rest} />
    </Sheet>
  );
}

type MoveProps = Pick<Props, "ids" | "from" | "groups" | "onMoved"> & { onDone: () => void };

function Move({ ids, from, groups, onMoved, onDone }: MoveProps) {
  const send = usePlanChange();
  const [to, setTo] = useState("");
  const go = () => {
    if (!to.trim()) return;
    void send("post", "/arrange/move", { ids, group: to }).then((took) => {
      if (!took) return;
      onMoved();
      onDone();
    });
  };
  return (
    <>
      <Field>
        to the group; a new name makes one
        <input
          list="other-groups"
          // eslint-disable-next-line jsx-a11y/no-autofocus -- the planner just opened it
          autoFocus
          value={to}
          onChange={(event) => setTo(event.currentTarget.value)}
          onKeyDown={(event) => event.key === "Enter" && go()}
        />
        <datalist id="other-groups">
          {groups
            .filter((name) => name !== from)
            .map((name) => (
              <option key={name} value={name} />
            ))}
        </datalist>
      </Field>
      <Foot>
        <Button onPress={onDone}>Leave them</Button>
        <MainButton isDisabled={!to.trim()} onPress={go}>
          Move <kbd>Enter</kbd>
        </MainButton>
      </Foot>
    </>
  );
}
