// @vitest-environment node
import { searchOf } from "./searchAddress";

it("puts the term where it is marked, written out for an address", () => {
  expect(searchOf("https://search.test/?q=‹term›&hl=en", "sash & cord")).toBe(
    "https://search.test/?q=sash%20%26%20cord&hl=en",
  );
});

it("puts it at the end where no place is marked, and knows what a bare address means", () => {
  expect(searchOf("search.test/?q=", "fenêtre")).toBe("https://search.test/?q=fen%C3%AAtre");
  expect(searchOf("javascript:alert(1)//", "x")).toBe("https://javascript:alert(1)//x");
});
