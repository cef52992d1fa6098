import {
  QueryCache,
  QueryClient,
  QueryClientProvider,
  type InvalidateOptions,
  type InvalidateQueryFilters,
  type QueryKey,
} from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { Refused } from "./client";
import { useSaying } from "./saying";

type Props = { children: ReactNode; patience?: number };

const patience = 3;

/** Asks anew after a change, also what was asked before it and is not answered yet. */
class Asking extends QueryClient {
  override async invalidateQueries<Key extends QueryKey>(
    filters?: InvalidateQueryFilters<Key>,
    options?: InvalidateOptions,
  ): Promise<void> {
    // a first answer still on its way would be waited for, and kept, though it is from before
    await this.cancelQueries({
      ...(filters as InvalidateQueryFilters),
      predicate: (query) =>
        query.state.data === undefined && (filters?.predicate?.(query as never) ?? true),
    });
    await super.invalidateQueries(filters, options);
  }
}

/** What was asked and answered; what of a plan could not be answered is said in the line. */
export function Queries({ children, patience: times = patience }: Props) {
  const { complain } = useSaying();
  const [queries] = useState(
    () =>
      new Asking({
        queryCache: new QueryCache({
          onError: (error, query) => query.meta?.complains && complain(error),
        }),
        defaultOptions: {
          queries: {
            refetchOnWindowFocus: false,
            networkMode: "always",
            // answers are columns of ten thousand figures: comparing them deeply would cost a call its speed
            structuralSharing: false,
            // what was refused is refused again; a program that starts anew is soon there
            retry: (failed, error) =>
              !(error instanceof Refused && error.answered) && failed < times,
          },
        },
      }),
  );
  return <QueryClientProvider client={queries}>{children}</QueryClientProvider>;
}
