import { useIsFetching } from "@tanstack/react-query";
import { Suspense, useEffect, useState, type ReactNode } from "react";
import { Outlet, useLocation, useNavigate } from "react-router";
import styled from "styled-components";
import { usePlan } from "../data/plan";
import { useSaid } from "../data/saying";
import { ink, whenNarrow } from "../look/tokens";
import { Caught } from "./Caught";
import { CommandBox } from "./CommandBox";
import { KeyList } from "./KeyList";
import { Purse } from "./Purse";
import { Trail } from "./Trail";
import { Workings } from "./Workings";
import { useActions } from "./actions";
import { useChord } from "./useChord";
import { useAsked, useAsking } from "./asked";
import { useKeys } from "./keys";
import { useNarrow } from "./useNarrow";
import { NextStep } from "./NextStep";
import { lightings, lightSaid, setLighting } from "../look/lighting";
import { stages } from "./stages";

const withWorkings = ["sift", "fit"];
const arranged = ["group", "campaign", "negative", "block", "word", "together"];

/** Trail above, purse below, a stage between them, the workings at its right. */
export function Frame() {
  const { id, summary, undo, redo } = usePlan();
  const [keysOpen, setKeysOpen] = useState(false);
  const { open, setOpen } = useAsking();
  const stage = useLocation().pathname.split("/")[3] ?? "brief";
  const [commandsOpen, setCommandsOpen] = useState(false);
  useGoKeys();
  useActions([
    { name: "Show or hide the workings", keys: ["w"], run: () => setOpen(!open) },
    { name: "The list of keys", keys: ["?"], run: () => setKeysOpen(true) },
    ...lightings.map((lighting) => ({
      name: `Light: ${lightSaid[lighting]}`,
      run: () => setLighting(lighting),
    })),
    {
      name: summary.journal.undo ? `Undo: ${summary.journal.undo}` : "Undo",
      keys: ["Ctrl+z"],
      run: () => void undo(),
    },
    {
      name: summary.journal.redo ? `Redo: ${summary.journal.redo}` : "Redo",
      keys: ["Ctrl+Shift+z"],
      run: () => void redo(),
    },
  ]);
  useKeys({ "Ctrl+k": () => setCommandsOpen(true) });
  useEffect(() => {
    const name = stages.find((s) => s.path === stage)?.name ?? "";
    document.title = `${name} · ${summary.brief.name} · Milkwort`;
  }, [stage, summary.brief.name]);
  return (
    <Page>
      <Trail onKeys={() => setKeysOpen(true)} onCommands={() => setCommandsOpen(true)} />
      <NextStep />
      <Middle>
        <Stage key={id}>
          <Caught key={stage} what="This stage">
            <Suspense fallback={<Waiting>Opening …</Waiting>}>
              <Outlet />
            </Suspense>
          </Caught>
        </Stage>
        {open && <Side stage={stage} />}
      </Middle>
      <SaidLine />
      <Purse />
      <KeyList open={keysOpen} onOpen={setKeysOpen} />
      <CommandBox open={commandsOpen} onOpen={setCommandsOpen} />
    </Page>
  );
}

/** A stage, said to be busy while an answer is on its way: what stands there may be of before. */
function Stage({ children }: { children: ReactNode }) {
  return <Main aria-busy={useIsFetching() > 0}>{children}</Main>;
}

/** The workings, where a stage has room for them or a figure of the purse is asked about. */
function Side({ stage }: { stage: string }) {
  const { asked } = useAsked();
  const narrow = useNarrow();
  if (narrow && asked === null) return null; // half a small screen is too much for a hint
  const here =
    withWorkings.includes(stage) ||
    asked?.kind === "figure" ||
    (stage === "arrange" && asked !== null && arranged.includes(asked.kind));
  return here ? <Workings /> : null;
}

function SaidLine() {
  const said = useSaid();
  return (
    <Said role="status" aria-live="polite" data-wrong={said?.wrong || undefined}>
      {said?.text}
    </Said>
  );
}

/** g, then a stage's letter. */
function useGoKeys() {
  const { id } = usePlan();
  const navigate = useNavigate();
  useChord("g", (key) => {
    if (key === "c") void navigate("/clients");
    const stage = stages.find((one) => one.key === key);
    if (stage) void navigate(`/plan/${id}/${stage.path}`);
    return stage !== undefined || key === "c";
  });
  useActions([
    ...stages.map(({ name, path, key }) => ({
      name: `Go to ${name} (g ${key})`,
      run: () => void navigate(`/plan/${id}/${path}`),
    })),
    { name: "All clients (g c)", run: () => void navigate("/clients") },
  ]);
}

const Page = styled.div`
  height: 100vh;
  display: flex;
  flex-direction: column;
  position: relative;
`;

const Middle = styled.div`
  flex: 1;
  min-height: 0;
  display: flex;
`;

const Main = styled.main`
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
`;

const Waiting = styled.p`
  padding: 32px;
  color: ${ink.ink2};
`;

const Said = styled.div`
  position: absolute;
  left: 20px;
  bottom: 80px;
  ${whenNarrow} {
    bottom: 46px;
  }
  z-index: 5;
  background: ${ink.ink};
  color: ${ink.paper};
  padding: 5px 12px;
  border-radius: 2px;
  max-width: min(70ch, 90%);
  overflow-wrap: break-word;
  &:empty {
    display: none;
  }
  &[data-wrong] {
    background: ${ink.rose};
  }
`;
