import type { ReactNode } from "react";
import { whyNotOpen } from "../../testing-plan";
import { Cap } from "./bids/Cap";
import { Curve } from "./bids/Curve";
import { Sums } from "./bids/Sums";
import { Ways } from "./bids/Ways";
import { Days } from "./year/Days";
import { Year } from "./year/Year";

it.each([
  ["the cap", <Cap key="" />, "/fit/cap"],
  ["the curve", <Curve key="" />, "/fit/curves"],
  ["groups in sum", <Sums key="" by="group" />, "/fit/sums"],
  ["ways to bid", <Ways key="" />, "/fit/ways"],
  ["a month’s days", <Days key="" month={2} name="March" onClose={vi.fn()} />, "/year/months/2"],
  ["the year", <Year key="" />, "/year"],
] as [string, ReactNode, string][])(
  "%s says why it can’t be opened, and asks again",
  async (_, view, path) => {
    expect(await whyNotOpen(view, path)).toEqual(["no, 1 try again", "no, 2 try again"]);
  },
);
