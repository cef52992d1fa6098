import { ToggleButton, ToggleButtonGroup } from "react-aria-components";
import styled from "styled-components";
import { ink } from "../look/tokens";

type Props<T extends string> = {
  label: string;
  views: readonly { id: T; name: string }[];
  view: T;
  onView: (view: T) => void;
};

/** A few ways to look at the same thing, one of them shown. */
export function Views<T extends string>({ label, views, view, onView }: Props<T>) {
  return (
    <Group
      aria-label={label}
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[view]}
      onSelectionChange={(keys) => onView([...keys][0] as T)}
    >
      {views.map(({ id, name }) => (
        <ToggleButton key={id} id={id}>
          {name}
        </ToggleButton>
      ))}
    </Group>
  );
}

const Group = styled(ToggleButtonGroup)`
  display: flex;
  border: 1px solid ${ink.ink};
  border-radius: 2px;
  button {
    border: 0;
    background: none;
    padding: 3px 9px;
    cursor: pointer;
    color: ${ink.ink};
    white-space: nowrap;
  }
  button[data-hovered] {
    background: ${ink.petalWash};
  }
  button[data-selected] {
    background: ${ink.ink};
    color: ${ink.paper};
  }
`;
