import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { Schemas } from "../../../data/client";
import { changeOf, showOnPlan } from "../../../testing-plan";
import { Curve } from "./Curve";
import { Limits } from "./Limits";

const patched = { "PATCH /brief": () => ({ body: changeOf({ did: "change the brief" }) }) };

describe("limits of the fit", () => {
  const limit = (changes: Partial<Schemas["LimitItem"]>): Schemas["LimitItem"] => ({
    limit: "max_keywords",
    campaign: "",
    campaign_id: null,
    wanted: 40,
    costs: 0.25,
    ...changes,
  });
  const view: Schemas["LimitsView"] = {
    goal: "customers",
    revision: 1,
    limits: [limit({}), limit({ limit: "min_clicks", costs: 0 })],
    attention_keywords: [10, 160],
    attention_value: [6, 12],
    attention_gap: [0, 0],
  };
  const campaign = (id: number, name: string, scouting_share: number | null) => ({
    id,
    name,
    least_spend: 0,
    most_spend: 150,
    scouting_share,
  });
  const answers = {
    "GET /fit/limits": () => ({ body: view }),
    "GET /arrange": () => ({
      body: { campaigns: [campaign(1, "Search", null), campaign(2, "Scouts", 0.1)] },
    }),
    "POST /arrange/campaigns/1": () => ({ body: changeOf({}) }),
    "POST /arrange/campaigns/2": () => ({ body: changeOf({}) }),
    ...patched,
  };

  it("each says what it costs, in the goal", async () => {
    await showOnPlan(<Limits />, answers);
    expect((await screen.findByText(/0\.25 customers fewer/)).hasAttribute("data-binds")).toBe(
      true,
    );
    expect(screen.getByText(/: costs nothing/).hasAttribute("data-binds")).toBe(false);
  });

  it("of fewer keywords says how much more there may be, where that shows", async () => {
    const body = { ...view, attention_gap: [0.02, 0] };
    await showOnPlan(<Limits />, { ...answers, "GET /fit/limits": () => ({ body }) });
    expect(await screen.findByText("or up to 2 % more")).toBeTruthy();
    expect(screen.getAllByText(/or up to/)).toHaveLength(1);
  });

  it("is put, and taken away again with an empty blank", async () => {
    const asked = await showOnPlan(<Limits />, answers);
    await userEvent.type(await screen.findByLabelText("Most keywords"), "40.4{Enter}");
    await waitFor(() => expect(asked.at(-1)!.body).toEqual({ max_keywords: 40 }));
    await userEvent.clear(screen.getByLabelText("Most money for Search"));
    await userEvent.keyboard("{Enter}");
    await waitFor(() =>
      expect(asked.at(-1)).toEqual({
        method: "POST",
        path: "/arrange/campaigns/1",
        body: { most_spend: null },
      }),
    );
  });

  it("a share for scouting is of the campaign that scouts", async () => {
    const asked = await showOnPlan(<Limits />, answers);
    const share = await screen.findByLabelText("Share set aside for scouting, per cent");
    await userEvent.clear(share);
    await userEvent.type(share, "20{Enter}");
    await waitFor(() =>
      expect(asked.at(-1)).toMatchObject({
        path: "/arrange/campaigns/2",
        body: { scouting_share: 0.2 },
      }),
    );
  });

  it("what fewer keywords would cost stands below, and one press limits them", async () => {
    const asked = await showOnPlan(<Limits />, answers);
    const fewer = await screen.findByRole("button", { name: "At most 10 keywords" });
    expect(fewer.closest("tr")!.textContent).toBe("106.050\u00a0%");
    expect(screen.getByText("160, all that run")).toBeTruthy();
    await userEvent.click(fewer);
    await waitFor(() => expect(asked.at(-1)!.body).toEqual({ max_keywords: 10 }));
  });
});

it.each([
  [0.0364, true],
  [0, false],
])(
  "a curve says how far its points may lie under the best, where that shows",
  async (gap, said) => {
    const curve = {
      plan_id: 1,
      label: "",
      purse: [0, 50, 100],
      value: [0, 2, 3],
      at: 60,
      knee: 50,
    };
    const curves = [{ ...curve, gap: [0, gap, 0], saturation: 100 }];
    await showOnPlan(<Curve />, {
      "GET /fit/curves": () => ({ body: { goal: "customers", curves } }),
      "GET /versions": () => ({ body: { versions: [] } }),
    });
    await screen.findByText("saturated 100");
    expect(screen.queryAllByText(/at some, up to 3.6 % more may be had/)).toHaveLength(
      Number(said),
    );
  },
);
