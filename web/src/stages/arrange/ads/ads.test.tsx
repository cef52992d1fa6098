import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { giveSizes } from "../../../testing-layout";
import type { Schemas } from "../../../data/client";
import { done, show } from "../testing-arrange";

beforeAll(giveSizes);

const look = (text: string): Schemas["AdLook"] => ({
  headlines: [{ name: "headline 1", shown: text, characters: text.length, most: 10 }],
  descriptions: [{ name: "description 1", shown: "Ask.", characters: 4, most: 20 }],
  faults: [{ kind: "too_long", field: "headline 1", says: "11 characters", must: true }],
  lines: [{ kind: "doing", said: true, says: "what to do next: ask", mend: "" }],
});

const adsView: Schemas["AdsView"] = {
  revision: 1,
  limits: {
    platform: "Kestrel",
    written_ads: true,
    headlines: 1,
    descriptions: 1,
    headline_characters: 10,
    description_characters: 20,
    ads_per_group: 2,
  },
  ads: [
    {
      ...look("Sash cords!"),
      id: 5,
      key: "a5",
      group_id: 2,
      written_headlines: ["Sash ‹keyword›"],
      written_descriptions: ["Ask."],
    },
  ],
  without: [1],
};

const withAds = {
  "GET /arrange/ads": () => ({ body: adsView }),
  "POST /arrange/ads/look": () => ({ body: look("Sash cords!") }),
  "POST /arrange/ads": done,
};

const written = (asked: { path: string; body: unknown }[]) =>
  asked.filter(({ path }) => path.endsWith("/arrange/ads")).map(({ body }) => body);

const openAds = async () => {
  const leaves = await screen.findByRole("radiogroup", { name: "Leaves of the group" });
  await userEvent.click(within(leaves).getByRole("radio", { name: "Ads 1" }));
};

it("an ad is read on a slip with its counts, and kept with Enter", async () => {
  const asked = await show(withAds);
  await openAds();
  expect((await screen.findByLabelText("The ad as it would be read")).textContent).toContain(
    "Sash cords!",
  );
  expect(screen.getByText("11, 1 over")).toBeTruthy();
  await userEvent.type(screen.getByLabelText("description 1"), " Now.{Enter}");
  await waitFor(() =>
    expect(written(asked)).toEqual([
      { group_id: 2, ad_id: 5, headlines: ["Sash ‹keyword›"], descriptions: ["Ask. Now."] },
    ]),
  );
});

it("the next group without an ad is reached and written by keys alone", async () => {
  const asked = await show(withAds);
  (await screen.findByRole("grid", { name: "Ad groups" })).focus();
  await userEvent.keyboard("u");
  expect(await screen.findByText("0 ads, Kestrel takes 2")).toBeTruthy();
  await waitFor(() => expect(document.activeElement?.tagName).toBe("TEXTAREA"));
  await userEvent.keyboard("Repairs{Enter}");
  await waitFor(() =>
    expect(written(asked)).toEqual([
      { group_id: 1, ad_id: null, headlines: ["Repairs"], descriptions: [""] },
    ]),
  );
});

it("what was typed and left is kept, and what was not changed is not", async () => {
  const asked = await show(withAds);
  await openAds();
  await userEvent.click(await screen.findByLabelText("headline 1"));
  await userEvent.click(screen.getByRole("heading", { name: "Arrange" }));
  expect(written(asked)).toEqual([]);
  await userEvent.type(screen.getByLabelText("headline 1"), "s");
  await userEvent.tab();
  expect(written(asked)).toEqual([]);
  await userEvent.click(screen.getByRole("heading", { name: "Arrange" }));
  await waitFor(() => expect(written(asked)).toHaveLength(1));
});
