import { useState } from "react";
import { DropZone, FileTrigger, type DropItem } from "react-aria-components";
import { client, formOf, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import { Button } from "../../parts/Button";
import { Small } from "../../parts/Screen";
import * as S from "./Gather.styles";
import { TrayView } from "./TrayView";

export type Tray = Schemas["TrayView"];

/** Keywords on their way in: sources at the left, what they bring in the tray. */
export function Gather() {
  const { id } = usePlan();
  const { complain } = useSaying();
  const [tray, setTray] = useState<Tray | null>(null);
  const [text, setText] = useState("");
  const [busy, setBusy] = useState("");
  const path = { params: { path: { plan_id: id } } };

  const read = async (what: string, request: () => Promise<Tray>) => {
    setBusy(what);
    try {
      setTray(await request());
    } catch (error) {
      complain(error);
    } finally {
      setBusy("");
    }
  };
  const readFile = (file: File) =>
    read(file.name, () =>
      taken(
        client.POST("/api/plans/{plan_id}/gather/file", {
          ...path,
          body: formOf(file) as never,
          bodySerializer: (body) => body as never,
        }),
      ),
    );
  const readText = () =>
    read("what was pasted", () =>
      taken(
        client.POST("/api/plans/{plan_id}/gather/text", {
          ...path,
          body: { text, name: "pasted" },
        }),
      ),
    );
  const dropped = async (items: DropItem[]) => {
    const file = items.find((item) => item.kind === "file");
    if (file) await readFile(await file.getFile());
    const words = items.find((item) => item.kind === "text" && item.types.has("text/plain"));
    if (!file && words?.kind === "text") setText(await words.getText("text/plain"));
  };

  return (
    <S.Split>
      <S.Sources>
        <h1>Gather</h1>
        <h2>A file</h2>
        <DropZone onDrop={(event) => void dropped(event.items)} aria-label="Drop a file here">
          <S.Drop>
            <FileTrigger
              acceptedFileTypes={[".csv", ".tsv", ".txt", "text/csv", "text/plain"]}
              onSelect={(files) => {
                const file = files?.[0];
                if (file) void readFile(file);
              }}
            >
              <Button>Choose a CSV …</Button>
            </FileTrigger>
            <Small>or drop it here: commas, semicolons or tabs, up to 20 MB</Small>
          </S.Drop>
        </DropZone>
        <h2>A pasted list</h2>
        <S.Paste
          aria-label="Pasted rows"
          placeholder={"sash window repair\t500 to 5,000\t0.80\t2.40"}
          value={text}
          spellCheck={false}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        <Button isDisabled={text.trim() === "" || busy !== ""} onPress={() => void readText()}>
          Read what is pasted
        </Button>
        <Small>
          One keyword a line, alone or with columns for volume and prices. Ranges are read as they
          are written: 10 to 100, &lt; 10, 1.2K.
        </Small>
      </S.Sources>
      {busy ? (
        <S.Empty role="status">Reading {busy} …</S.Empty>
      ) : tray ? (
        <TrayView key={tray.key} tray={tray} onTray={setTray} onDone={() => setText("")} />
      ) : (
        <S.Empty>
          <h2>The tray is empty</h2>
          <p>
            What a file brings lands here first: what is new, what the sheet already has, what has
            new figures, and what was refused with the reason. Nothing enters the sheet until you
            take it in.
          </p>
        </S.Empty>
      )}
    </S.Split>
  );
}
