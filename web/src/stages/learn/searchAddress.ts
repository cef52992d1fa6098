import { useState } from "react";

const store = "milkwort.search-address";

/** Where the planner looks a term up, with ‹term› in it; kept in this browser alone. */
export function useSearchAddress(): [string, (address: string) => void] {
  const [address, setAddress] = useState(() => localStorage.getItem(store) ?? "");
  return [
    address,
    (next) => {
      localStorage.setItem(store, next);
      setAddress(next);
    },
  ];
}

/** The address of a search: the term in the place of ‹term›, or at the end where none is marked. */
export function searchOf(address: string, term: string): string {
  const whole = /^https?:\/\//i.test(address) ? address : `https://${address}`;
  const said = encodeURIComponent(term);
  return whole.includes("‹term›") ? whole.replaceAll("‹term›", said) : whole + said;
}
