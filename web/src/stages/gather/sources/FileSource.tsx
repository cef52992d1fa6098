import { DropZone, FileTrigger, type DropItem } from "react-aria-components";
import { client, uploadOf, taken } from "../../../data/client";
import { Button } from "../../../parts/Button";
import { Small } from "../../../parts/Screen";
import type { Brought } from "../tray";
import { jobHeader } from "../../../data/progress";
import { Working } from "../../../parts/Working";
import * as S from "../Gather.styles";
import * as F from "./FileSource.styles";
import { useReading } from "../useReading";

type Props = { text: string; onText: (text: string) => void; onTray: Brought };

const types = [".csv", ".tsv", ".txt", ".xlsx", ".json", "text/csv", "text/plain"];

/** A file or pasted rows. */
export function FileSource({ text, onText, onTray }: Props) {
  const { busy, read, path } = useReading();
  const readFile = (file: File) =>
    read(
      file.name,
      (job) =>
        taken(
          client.POST("/api/plans/{plan_id}/gather/file", {
            ...path,
            ...jobHeader(job),
            ...uploadOf(file),
          }),
        ),
      onTray,
    );
  const readText = () =>
    read(
      "what was pasted",
      (job) =>
        taken(
          client.POST("/api/plans/{plan_id}/gather/text", {
            ...path,
            ...jobHeader(job),
            body: { text, name: "pasted" },
          }),
        ),
      onTray,
    );
  const dropped = async (items: DropItem[]) => {
    const file = items.find((item) => item.kind === "file");
    if (file) await readFile(await file.getFile());
    const words = items.find((item) => item.kind === "text" && item.types.has("text/plain"));
    if (!file && words?.kind === "text") onText(await words.getText("text/plain"));
  };
  if (busy) return <Working what={busy.what} job={busy.job} />;
  return (
    <F.TwoWays>
      <div>
        <h2>A file</h2>
        <DropZone onDrop={(event) => void dropped(event.items)} aria-label="Drop a file here">
          <F.Drop>
            <FileTrigger
              acceptedFileTypes={types}
              onSelect={(files) => {
                const file = files?.[0];
                if (file) void readFile(file);
              }}
            >
              <Button>Choose a file …</Button>
            </FileTrigger>
            <Small>
              or drop it here: CSV, TSV, XLSX or JSON, up to 20 MB and 200,000 rows. Columns,
              encodings and decimal marks are guessed and shown.
            </Small>
          </F.Drop>
        </DropZone>
        <F.About>
          <h3>What happens next</h3>
          <p>
            What a source brings lands in a tray first: what is new, what is alike another keyword,
            what has new figures, what the sheet already has, and what was refused with the reason.
            Nothing enters the sheet until you take it in.
          </p>
        </F.About>
      </div>
      <div>
        <h2>A pasted list</h2>
        <S.Paste
          aria-label="Pasted rows"
          placeholder={"sash window repair\t500 to 5,000\t0.80\t2.40"}
          value={text}
          spellCheck={false}
          onChange={(event) => onText(event.currentTarget.value)}
        />
        <Button isDisabled={text.trim() === ""} onPress={() => void readText()}>
          Read what is pasted
        </Button>
        <Small>
          One keyword a line, alone or with columns for volume and prices. Ranges are read as they
          are written: 10 to 100, &lt; 10, 1.2K. Marks round a keyword say its match type.
        </Small>
      </div>
    </F.TwoWays>
  );
}
