import type { ReactNode } from "react";
import { TextButton } from "./Button";

type Query = { error: Error | null; refetch: () => unknown };
type Props = { of: Query; children: ReactNode };

/** What stands where an answer will: what is being done, or why it could not be and the way back. */
export function NotYet({ of, children }: Props) {
  if (!of.error) return <>{children}</>;
  return (
    <span role="alert">
      {of.error.message} <TextButton onPress={() => void of.refetch()}>try again</TextButton>
    </span>
  );
}
