import { useState, type ReactNode } from "react";
import { FileTrigger } from "react-aria-components";
import { useSaying } from "../../data/saying";
import { Button } from "../../parts/Button";
import * as A from "./Arrange.styles";

/** A file of rows that is read before any is taken in: what it holds, and the button to choose it. */
export function useFileOfRows<Found>(
  ask: (chosen: File) => Promise<Found>,
): [Found | null, (beside?: ReactNode) => ReactNode] {
  const { complain } = useSaying();
  const [file, setFile] = useState<Found | null>(null);
  const read = (chosen: File | undefined) => {
    if (chosen) ask(chosen).then(setFile, complain);
  };
  const chooser = (beside?: ReactNode) => (
    <A.Line>
      <FileTrigger
        acceptedFileTypes={[".csv", ".tsv", ".xlsx", ".json"]}
        onSelect={(files) => read(files?.[0])}
      >
        <Button>choose a file …</Button>
      </FileTrigger>
      {beside}
    </A.Line>
  );
  return [file, chooser];
}
