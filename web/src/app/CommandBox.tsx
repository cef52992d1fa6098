import { useMemo } from "react";
import { Autocomplete, Input, Menu, MenuItem, SearchField, type Key } from "react-aria-components";
import styled from "styled-components";
import { ink } from "../look/tokens";
import { Sheet } from "../parts/Sheet";
import { actionsNow } from "./actions";
import { alsoSaid, isMeant } from "./synonyms";

type Props = { open: boolean; onOpen: (open: boolean) => void };

/** Every action by name, with its key. */
export function CommandBox({ open, onOpen }: Props) {
  return (
    <Sheet title="Commands" bare open={open} onOpen={onOpen}>
      <Commands onDone={() => onOpen(false)} />
    </Sheet>
  );
}

function Commands({ onDone }: { onDone: () => void }) {
  const actions = useMemo(() => actionsNow(), []);
  const run = (key: Key) => {
    onDone();
    // the box must be gone, or keys and focus of the action would land in it
    setTimeout(() => actions[Number(key)]?.run(), 0);
  };
  return (
    <Autocomplete filter={isMeant}>
      {/* eslint-disable-next-line jsx-a11y/no-autofocus -- the planner just asked for it */}
      <SearchField aria-label="Command" autoFocus>
        <Box placeholder="What to do …" />
      </SearchField>
      <Scroll tabIndex={0}>
        <List
          aria-label="Commands"
          onAction={run}
          renderEmptyState={() => "No command of that name."}
        >
          {actions.map((action, at) => (
            <Item key={at} id={String(at)} textValue={`${action.name} ${alsoSaid(action.name)}`}>
              {action.name}
              {action.keys && " "}
              {action.keys && <kbd>{action.keys.map(spoken).join(" ")}</kbd>}
            </Item>
          ))}
        </List>
      </Scroll>
    </Autocomplete>
  );
}

const spoken = (key: string) =>
  key.replace("ArrowDown", "↓").replace("ArrowUp", "↑").replaceAll("+", " ");

const Box = styled(Input)`
  width: 100%;
  font: inherit;
  font-size: 16px;
  padding: 6px 8px;
  border: 0;
  border-bottom: 1.5px solid ${ink.petal};
  background: none;
  color: ${ink.ink};
  outline: none;
`;

const Scroll = styled.div`
  max-height: 52vh;
  overflow: auto;
  margin-top: 8px;
`;

const List = styled(Menu)`
  outline: none;
  color: ${ink.ink2};
` as typeof Menu;

const Item = styled(MenuItem)`
  display: flex;
  justify-content: space-between;
  padding: 5px 8px;
  color: ${ink.ink};
  cursor: pointer;
  outline: none;
  &[data-focused] {
    background: ${ink.petalWash};
  }
`;
