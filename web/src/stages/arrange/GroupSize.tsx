import { Slider, SliderThumb, SliderTrack, Label } from "react-aria-components";
import styled from "styled-components";
import type { Schemas } from "../../data/client";
import { ink } from "../../look/tokens";
import { number } from "../../parts/format";

type Props = { limits: Schemas["StructureLimits"]; most: number; onMost: (most: number) => void };

/** How large groups may be: from tight ones to few, as far as the platform goes. */
export function GroupSize({ limits, most, onMost }: Props) {
  return (
    <Sized
      minValue={1}
      maxValue={limits.keywords_per_group}
      value={most}
      onChange={(value) => onMost(Number(value))}
    >
      <Label>
        At most <b>{number(most)}</b> keywords a group; {limits.platform} takes{" "}
        {number(limits.keywords_per_group)}
      </Label>
      <span aria-hidden>tight</span>
      <Track>
        <Thumb />
      </Track>
      <span aria-hidden>few groups</span>
    </Sized>
  );
}

const Sized = styled(Slider)`
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 4px 10px;
  align-items: center;
  margin-bottom: 10px;
  font-size: 12px;
  color: ${ink.ink2};
  label {
    grid-column: 1 / -1;
    font-size: 13.5px;
    color: ${ink.ink};
  }
`;

const Track = styled(SliderTrack)`
  height: 20px;
  background: linear-gradient(${ink.ink3}, ${ink.ink3}) center / 100% 1px no-repeat;
`;

const Thumb = styled(SliderThumb)`
  top: 50%;
  width: 14px;
  height: 14px;
  border-radius: 2px;
  background: ${ink.petal};
  &[data-focus-visible] {
    outline: 2px solid ${ink.petal};
    outline-offset: 2px;
  }
`;
