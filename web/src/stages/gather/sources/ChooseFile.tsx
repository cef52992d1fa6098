import { FileTrigger } from "react-aria-components";
import { Button } from "../../../parts/Button";

type Props = { name: string; busy: boolean; onFile: (file: File) => void };

const types = [".csv", ".tsv", ".xlsx", ".json", "text/csv"];

/** A button that asks for one file of rows. */
export function ChooseFile({ name, busy, onFile }: Props) {
  return (
    <FileTrigger
      acceptedFileTypes={types}
      onSelect={(files) => {
        const file = files?.[0];
        if (file) onFile(file);
      }}
    >
      <Button isDisabled={busy}>{name}</Button>
    </FileTrigger>
  );
}
