import type { ReactNode } from "react";
import { whyNotOpen } from "../../testing-plan";
import { Changes } from "./Changes";
import { HandOver } from "./HandOver";
import { OtherSheet } from "./OtherSheet";

it.each([
  ["changed rows", <Changes key="" since={null} />, "/hand-over/changes"],
  ["Hand over", <HandOver key="" />, "/hand-over"],
  ["another sheet", <OtherSheet key="" sheet="ads" />, "/hand-over/sheets/ads"],
] as [string, ReactNode, string][])(
  "%s says why it can’t be opened, and asks again",
  async (_, view, path) => {
    expect(await whyNotOpen(view, path)).toEqual(["no, 1 try again", "no, 2 try again"]);
  },
);
