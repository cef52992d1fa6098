import { QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { Refused } from "./client";
import { useSaying } from "./saying";

type Props = { children: ReactNode; patience?: number };

const patience = 3;

/** What was asked and answered; what of a plan could not be answered is said in the line. */
export function Queries({ children, patience: times = patience }: Props) {
  const { complain } = useSaying();
  const [queries] = useState(
    () =>
      new QueryClient({
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
