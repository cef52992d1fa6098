import type { ReactNode } from "react";
import { FileTrigger } from "react-aria-components";
import { Button, TextButton } from "./Button";

type Props = {
  /** Endings and media types that are offered. */
  accept: string[];
  onFile: (file: File) => void;
  /** Stands apart as a button; else as words in a line. */
  apart?: boolean;
  children: ReactNode;
};

/** Asks for one file. */
export function FilePick({ accept, onFile, apart, children }: Props) {
  const Pressed = apart ? Button : TextButton;
  return (
    <FileTrigger
      acceptedFileTypes={accept}
      onSelect={(files) => {
        const file = files?.[0];
        if (file) onFile(file);
      }}
    >
      <Pressed>{children}</Pressed>
    </FileTrigger>
  );
}
