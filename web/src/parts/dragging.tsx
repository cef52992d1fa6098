import { useRef } from "react";
import { useButton, useDrag, useDrop, type DropItem } from "react-aria";
import styled from "styled-components";
import { ink } from "../look/tokens";

/** What can be dragged, by its ids. */
export type Dragged = "keywords" | "groups";

type GripProps = {
  kind: Dragged;
  /** What goes along: the row, or all that is selected. */
  ids: readonly number[];
  label: string;
};

const typeOf = (kind: Dragged) => `application/x-milkwort-${kind}`;

/** The part of a row it is dragged by; Enter takes it up for the keyboard. */
export function Grip({ kind, ids, label }: GripProps) {
  const ref = useRef<HTMLButtonElement>(null);
  const { dragProps, dragButtonProps, isDragging } = useDrag({
    hasDragButton: true,
    getItems: () => [{ [typeOf(kind)]: JSON.stringify(ids), "text/plain": label }],
    getAllowedDropOperations: () => ["move"],
  });
  const { buttonProps } = useButton({ ...dragButtonProps, "aria-label": `Drag ${label}` }, ref);
  return (
    <Held {...dragProps} data-dragging={isDragging || undefined}>
      <button {...buttonProps} ref={ref} tabIndex={-1}>
        ⠿
      </button>
    </Held>
  );
}

/** What a place does with what is dropped on it, by its kind. */
export type Taking = Partial<Record<Dragged, (ids: number[]) => void>>;

/** Makes an element a place to drop on. */
export function useDropped(taking: Taking) {
  const ref = useRef<HTMLDivElement>(null);
  const kinds = Object.keys(taking) as Dragged[];
  const { dropProps, isDropTarget } = useDrop({
    ref,
    getDropOperation: (types, allowed) =>
      kinds.some((kind) => types.has(typeOf(kind))) && allowed.includes("move") ? "move" : "cancel",
    onDrop: ({ items }) => void took(items, taking),
  });
  return { ref, ...dropProps, "data-drop": isDropTarget || undefined };
}

async function took(items: DropItem[], taking: Taking) {
  for (const item of items) {
    if (item.kind !== "text") continue;
    for (const kind of Object.keys(taking) as Dragged[])
      if (item.types.has(typeOf(kind)))
        taking[kind]!(JSON.parse(await item.getText(typeOf(kind))) as number[]);
  }
}

const Held = styled.span`
  display: inline-block;
  button {
    border: 0;
    background: none;
    padding: 0 6px 0 0;
    color: ${ink.ink3};
    cursor: grab;
    font: inherit;
  }
  [data-active] & button,
  [aria-selected="true"] & button {
    color: ${ink.ink2};
  }
  &[data-dragging] {
    opacity: 0.5;
  }
`;

/** A place something can be dropped on: it shows when something is over it. */
export const Target = styled.div`
  min-width: 0;
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  &[data-drop] {
    background: ${ink.petalWash};
    outline: 2px solid ${ink.petal};
    outline-offset: -2px;
  }
`;
