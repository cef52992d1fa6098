import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { client, taken } from "../../../data/client";
import { wordsOf, type Filter, type Forms } from "./filter";

const none: Forms = {};

/** Other forms of the words a filter asks for; none until the server has said them. */
export function useForms({ words }: Filter): Forms {
  const asked = wordsOf(words).slice(0, 400);
  const found = useQuery<Forms>({
    queryKey: ["forms", asked],
    queryFn: () => taken(client.GET("/api/sift/forms", { params: { query: { words: asked } } })),
    enabled: asked !== "",
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });
  return asked === "" ? none : (found.data ?? none);
}
