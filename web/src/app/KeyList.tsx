import { Dialog, Heading, Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";
import { ink } from "../look/tokens";
import { Button } from "../parts/Button";
import { setSingleKeys, useSingleKeys } from "./keys";

const keys: [string, [string, string][]][] = [
  [
    "Everywhere",
    [
      ["g then b g s a f h l", "go to a stage"],
      ["w", "show or hide the workings"],
      ["Ctrl Z", "undo"],
      ["Ctrl Shift Z", "redo"],
      ["?", "this list"],
    ],
  ],
  [
    "In a sheet",
    [
      ["↑ ↓ or j k", "move"],
      ["x", "select the row"],
      ["Shift ↑ ↓", "extend the selection"],
      ["Ctrl A", "select all that is shown"],
      ["Escape", "select nothing"],
      ["/", "filter"],
    ],
  ],
  [
    "In Sift",
    [
      ["1 2 3 4", "keep, hold, drop, block"],
      ["0", "take the call back"],
      [".", "the same call again"],
      ["[ ]", "move the line, in order of price"],
    ],
  ],
  [
    "In Gather and Fit",
    [
      ["Enter", "take the tray in; type a bid"],
      ["l", "in Fit: lock the bid, or give it back"],
    ],
  ],
];

type Props = { open: boolean; onOpen: (open: boolean) => void };

/** Every key, and the switch that turns single keys off. */
export function KeyList({ open, onOpen }: Props) {
  const on = useSingleKeys();
  return (
    <Overlay isOpen={open} onOpenChange={onOpen} isDismissable>
      <Modal>
        <Dialog aria-label="Keys">
          <Sheet>
            <Heading slot="title" level={2}>
              Keys
            </Heading>
            <div>
              {keys.map(([title, rows]) => (
                <section key={title}>
                  <h3>{title}</h3>
                  <dl>
                    {rows.map(([key, what]) => (
                      <div key={key}>
                        <dt>
                          <kbd>{key}</kbd>
                        </dt>
                        <dd>{what}</dd>
                      </div>
                    ))}
                  </dl>
                </section>
              ))}
            </div>
            <footer>
              <label>
                <input
                  type="checkbox"
                  checked={on}
                  onChange={(event) => setSingleKeys(event.currentTarget.checked)}
                />{" "}
                single keys work outside of fields
              </label>
              <Button onPress={() => onOpen(false)}>Close</Button>
            </footer>
          </Sheet>
        </Dialog>
      </Modal>
    </Overlay>
  );
}

const Overlay = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  background: ${ink.ink}55;
  display: grid;
  place-items: center;
  z-index: 20;
`;

const Sheet = styled.div`
  background: ${ink.paper};
  border: 1px solid ${ink.ink};
  padding: 22px 28px;
  width: 660px;
  max-width: 94vw;
  max-height: 86vh;
  overflow: auto;
  > div {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 18px 32px;
    margin: 14px 0 18px;
  }
  h3 {
    margin-bottom: 6px;
  }
  dl {
    margin: 0;
  }
  dl div {
    display: flex;
    gap: 10px;
    padding: 3px 0;
    border-bottom: 1px solid ${ink.rule};
  }
  dt {
    width: 136px;
    flex: none;
  }
  dd {
    margin: 0;
  }
  footer {
    display: flex;
    justify-content: space-between;
    align-items: center;
  }
`;
