import type { ReactNode } from "react";
import { whyNotOpen } from "../../testing-plan";
import { Arrange } from "./Arrange";

it.each([["Arrange", <Arrange key="" />, "/arrange"]] as [string, ReactNode, string][])(
  "%s says why it can’t be opened, and asks again",
  async (_, view, path) => {
    expect(await whyNotOpen(view, path)).toEqual(["no, 1 try again", "no, 2 try again"]);
  },
);
