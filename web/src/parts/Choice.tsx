import { Button, ListBox, ListBoxItem, Popover, Select, SelectValue } from "react-aria-components";
import styled from "styled-components";
import { ink } from "../look/tokens";

export type Option<T extends string> = { id: T; name: string; about?: string };

type Props<T extends string> = {
  label: string;
  value: T;
  options: readonly Option<T>[];
  onChange: (value: T) => void;
  /** Looks like a word of a sentence. */
  inline?: boolean;
  assumed?: boolean;
};

/** One of a few, as a word that can be changed. */
export function Choice<T extends string>(props: Props<T>) {
  const { label, value, options, onChange, inline, assumed } = props;
  return (
    <Select
      aria-label={label}
      value={value}
      onChange={(key) => onChange(key as T)}
      style={{ display: "inline-block" }}
    >
      <Word $inline={inline} $assumed={assumed}>
        <SelectValue>{options.find((o) => o.id === value)?.name ?? "…"}</SelectValue>
        <span aria-hidden> ▾</span>
      </Word>
      <Pop>
        <List>
          {options.map((option) => (
            <Item key={option.id} id={option.id} textValue={option.name}>
              {option.name}
              {option.about && <small>{option.about}</small>}
            </Item>
          ))}
        </List>
      </Pop>
    </Select>
  );
}

const Word = styled(Button)<{ $inline?: boolean; $assumed?: boolean }>`
  background: none;
  border: 0;
  border-bottom: 1px ${(p) => (p.$assumed ? "dashed" : "solid")}
    ${(p) => (p.$assumed ? ink.straw : p.$inline ? ink.petal : ink.ink3)};
  padding: 0 2px;
  cursor: pointer;
  white-space: nowrap;
  ${(p) => p.$inline && `color: ${p.$assumed ? ink.straw : ink.petalDeep}; font-weight: 600;`}
  span[aria-hidden] {
    font-size: 10px;
    opacity: 0.7;
  }
  span {
    display: inline;
  }
`;

const Pop = styled(Popover)`
  background: ${ink.paper};
  border: 1px solid ${ink.ink3};
  border-radius: 2px;
  max-height: 340px;
  overflow: auto;
`;

const List = styled(ListBox)`
  padding: 4px;
  outline: none;
` as typeof ListBox;

const Item = styled(ListBoxItem)`
  padding: 4px 10px;
  cursor: pointer;
  outline: none;
  max-width: 360px;
  small {
    display: block;
    color: ${ink.ink2};
    font-size: 12px;
  }
  &[data-focused] {
    background: ${ink.petalWash};
  }
  &[data-selected] {
    font-weight: 600;
  }
`;
