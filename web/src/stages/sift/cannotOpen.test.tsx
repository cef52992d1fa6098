import type { ReactNode } from "react";
import { whyNotOpen } from "../../testing-plan";
import { SiftProvider } from "./useSift";
import { Words } from "./words/Words";

it.each([
  [
    "the words",
    <SiftProvider key="">
      <Words />
    </SiftProvider>,
    "/sift/words",
  ],
] as [string, ReactNode, string][])(
  "%s says why it can’t be opened, and asks again",
  async (_, view, path) => {
    expect(await whyNotOpen(view, path)).toEqual(["no, 1 try again", "no, 2 try again"]);
  },
);
