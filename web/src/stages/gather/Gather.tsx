import { useState } from "react";
import { ListBox, ListBoxItem, type Key } from "react-aria-components";
import * as S from "./Gather.styles";
import { TrayView } from "./TrayView";
import { AccountSource } from "./sources/AccountSource";
import { AlmanacSource } from "./sources/AlmanacSource";
import { CrossingSource } from "./sources/CrossingSource";
import { FileSource } from "./sources/FileSource";
import { NeverWanted } from "./sources/NeverWanted";
import { PageSource } from "./sources/PageSource";
import { PlacesSource } from "./sources/PlacesSource";
import { RivalsSource } from "./sources/rivals/RivalsSource";
import { StarterSource } from "./sources/StarterSource";
import { TermsSource } from "./sources/TermsSource";
import type { Tray, Brought } from "./tray";

const sources = [
  { id: "file", name: "A file or a list", about: "CSV, XLSX, JSON, pasted rows" },
  { id: "crossing", name: "Crossing", about: "services × products × places" },
  { id: "almanac", name: "Almanac", about: "a keyword source, simulated" },
  { id: "terms", name: "Past search terms", about: "what people typed and bought" },
  { id: "account", name: "The running account", about: "what is live now, to start from" },
  { id: "page", name: "A page", about: "its words by weight" },
  { id: "rivals", name: "Rivals", about: "what others pay for" },
  { id: "places", name: "Other places", about: "swap in your own town" },
  { id: "never", name: "Never wanted", about: "words to block on arrival" },
  { id: "starter", name: "To start with", about: "the few that bring most" },
] as const;

/** Keywords on their way in: sources at the left, what they bring in the tray. */
export function Gather() {
  const [source, setSource] = useState<Key>("file");
  const [pasted, setPasted] = useState("");
  const [tray, setTray] = useState<{ tray: Tray; more?: () => Promise<Tray> } | null>(null);
  const bring: Brought = (brought, more) => setTray({ tray: brought, more });
  return (
    <S.Split>
      <S.Sources>
        <h1>Gather</h1>
        <ListBox
          aria-label="Sources"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[source]}
          onSelectionChange={(keys) => {
            setSource([...keys][0] ?? "file");
            setTray(null);
          }}
        >
          {sources.map((one) => (
            <ListBoxItem key={one.id} id={one.id} textValue={one.name}>
              <b>{one.name}</b>
              <small>{one.about}</small>
            </ListBoxItem>
          ))}
        </ListBox>
      </S.Sources>
      {tray ? (
        <TrayView
          key={tray.tray.key}
          tray={tray.tray}
          more={tray.more}
          onTray={(next) => setTray(next && { ...tray, tray: next })}
          onMore={bring}
        />
      ) : (
        <S.Source>
          {source === "file" && <FileSource text={pasted} onText={setPasted} onTray={bring} />}
          {source === "crossing" && <CrossingSource onTray={bring} />}
          {source === "almanac" && <AlmanacSource onTray={bring} />}
          {source === "terms" && <TermsSource onTray={bring} />}
          {source === "account" && <AccountSource />}
          {source === "page" && <PageSource onTray={bring} />}
          {source === "rivals" && <RivalsSource onTray={bring} />}
          {source === "places" && <PlacesSource onTray={bring} />}
          {source === "never" && <NeverWanted />}
          {source === "starter" && <StarterSource />}
        </S.Source>
      )}
    </S.Split>
  );
}
