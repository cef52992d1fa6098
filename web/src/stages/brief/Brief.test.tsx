import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { changeOf, refusal, showOnPlan } from "../../testing-plan";
import { Brief } from "./Brief";

const taken = { "PATCH /brief": () => ({ body: changeOf({}) }) };

async function typed(label: string, text: string) {
  const field = screen.getByLabelText(label);
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
}

it("reads as sentences, with what is assumed marked", async () => {
  await showOnPlan(<Brief />);
  expect(screen.getByLabelText("Sale value")).toHaveProperty("value", "340");
  expect(screen.getByLabelText("Gross margin, per cent")).toHaveProperty("value", "55");
  expect(screen.getByLabelText("Customers of 100 visitors, high")).toHaveProperty("value", "4.5");
  expect(screen.getByLabelText("Area share, per cent").dataset.assumed).toBe("true");
  expect(screen.getByLabelText("Sale value").dataset.assumed).toBeUndefined();
});

it.each([
  ["Sale value", "1,250.50", { sale_value: 1250.5 }],
  ["Gross margin, per cent", "60 %", { gross_margin: 0.6 }],
  ["Monthly spend", "£750", { purse: 750, per: "month" }],
  ["Monthly spend", "£20.50 a day", { purse: 20.5, per: "day" }],
  ["Monthly spend", "140 / week", { purse: 140, per: "week" }],
  [
    "Own places, separated by commas",
    "Wrenfold, , Upper Tansley ",
    { places: ["Wrenfold", "Upper Tansley"] },
  ],
  ["Highest price of a click", "2.5", { max_cpc: 2.5 }],
])("%s typed as %s is sent in its own unit", async (label, text, body) => {
  const asked = await showOnPlan(<Brief />, taken);
  await typed(label, text);
  await waitFor(() => expect(asked.map((a) => a.body)).toEqual([body]));
});

it("words where a figure belongs are not sent, and stay to be mended", async () => {
  const asked = await showOnPlan(<Brief />, taken);
  await typed("Sale value", "dear");
  expect(screen.getByLabelText("Sale value").getAttribute("aria-invalid")).toBe("true");
  expect(asked).toEqual([]);
});

it("what the server refuses is said in its words", async () => {
  await showOnPlan(<Brief />, {
    "PATCH /brief": () => ({
      status: 422,
      body: refusal("gross_margin: expected at most 1 (100 %)"),
    }),
  });
  await typed("Gross margin, per cent", "140");
  await waitFor(() =>
    expect(screen.getByTestId("said").textContent).toContain("at most 1 (100 %)"),
  );
  expect(screen.getByLabelText("Gross margin, per cent")).toHaveProperty("value", "140");
});

it("customers are counted in two steps when asked", async () => {
  const asked = await showOnPlan(<Brief />, taken);
  await userEvent.click(screen.getByText(/count in two steps/));
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0]!.path).toContain("/brief/steps");
  expect(asked[0]!.body).toEqual({ steps: 2 });
});

it("the descent and the backward table say when a price misses the rule", async () => {
  await showOnPlan(<Brief />);
  expect(screen.getByText("4.71")).toBeTruthy();
  expect(screen.getByText("20 ✕").dataset.missed).toBe("true");
  expect(screen.getByText("79").dataset.missed).toBeUndefined();
  expect(screen.getByRole("img", { name: "3.0 of 100 dots filled" })).toBeTruthy();
});
