import type { ReactNode } from "react";
import { whyNotOpen } from "../../testing-plan";
import { Learn } from "./Learn";
import { LookedOver } from "./LookedOver";

it.each([
  ["Learn", <Learn key="" />, "/learn"],
  ["the account", <LookedOver key="" />, "/learn/account"],
] as [string, ReactNode, string][])(
  "%s says why it can’t be opened, and asks again",
  async (_, view, path) => {
    expect(await whyNotOpen(view, path)).toEqual(["no, 1 try again", "no, 2 try again"]);
  },
);
