import styled from "styled-components";
import type { Figures } from "../data/client";
import type { Column } from "./column";
import { Whisker } from "./Whisker";
import { money, number } from "./format";
import { priceTicks, type PriceScale } from "./scale";

type Settings = {
  figures: Figures;
  scale: PriceScale;
  width: number;
  /** What the whisker shows, with its currency. */
  head: string;
  /** Draws the bid as a dot, where the column is about bids. */
  bids?: boolean;
};

/** Prices as whiskers on one shared scale, with the ceiling's tick. */
export function priceColumn({ figures, scale, width, head, bids }: Settings): Column {
  const ticks = priceTicks(scale);
  const [least = 0, most = 0] = scale.domain();
  return {
    id: "price",
    head: (
      <Head style={{ width: width - 14 }}>
        <span>{money(least)}</span>
        <span>{head}</span>
        <span>{number(most)}</span>
      </Head>
    ),
    label: "price",
    width: `${width + 16}px`,
    sortable: true,
    leaves: [
      { head: "low price", value: (row) => figures.cpc_low[row] },
      { head: "middle price", value: (row) => figures.cpc_median[row] },
      { head: "high price", value: (row) => figures.cpc_high[row] },
    ],
    cell: (row) => (
      <Whisker
        scale={scale}
        ticks={ticks}
        width={width}
        low={figures.cpc_low[row]}
        median={figures.cpc_median[row]}
        high={figures.cpc_high[row]}
        ceiling={figures.ceiling[row]}
        bid={bids ? (figures.bid[row] ?? 0) : undefined}
        beyond={figures.standing[row] === "beyond"}
      />
    ),
  };
}

const Head = styled.span`
  display: flex;
  justify-content: space-between;
  gap: 6px;
`;
