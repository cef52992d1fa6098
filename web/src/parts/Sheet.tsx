import { useState, type KeyboardEvent, type ReactNode } from "react";
import { Dialog, Heading, Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";
import { useSaid } from "../data/saying";
import { ink, thin } from "../look/tokens";

type Props = {
  title: string;
  open: boolean;
  onOpen: (open: boolean) => void;
  width?: number;
  /** The title is for screen readers alone. */
  bare?: boolean;
  children: ReactNode;
};

/** A sheet of paper laid over the screen: Escape or a press beside it puts it away. */
export function Sheet({ title, open, onOpen, width = 520, bare, children }: Props) {
  return (
    <Overlay isOpen={open} onOpenChange={onOpen} isDismissable>
      <Modal>
        <Dialog aria-label={title} style={{ outline: "none" }}>
          <Paper style={{ width }} onKeyDown={keepKeys}>
            {!bare && (
              <Heading slot="title" level={2}>
                {title}
              </Heading>
            )}
            <Refused />
            {children}
          </Paper>
        </Dialog>
      </Modal>
    </Overlay>
  );
}

/** Why what was asked in a sheet was refused: the line that says so elsewhere lies under it. */
function Refused() {
  const said = useSaid();
  const [before] = useState(said?.at);
  return <Why role="alert">{said?.wrong && said.at !== before ? said.text : null}</Why>;
}

/** Keys pressed in a sheet are its own, but for the one that puts it away. */
function keepKeys(event: KeyboardEvent) {
  if (event.key !== "Escape") event.stopPropagation();
}

const rim = { y: 20, x: 26 };

/** Buttons at the foot of a sheet, the main one last; in sight however long the sheet is. */
export const Foot = styled.footer`
  display: flex;
  justify-content: flex-end;
  align-items: center;
  gap: 10px;
  position: sticky;
  bottom: -${rim.y}px;
  z-index: 1;
  margin: 18px -${rim.x}px -${rim.y}px;
  padding: 10px ${rim.x}px 16px;
  background: ${ink.paper};
  > :first-child:not(:last-child) {
    margin-right: auto;
  }
`;

const Why = styled.p`
  position: sticky;
  top: -${rim.y}px;
  z-index: 1;
  margin: 0 -${rim.x}px 12px;
  padding: 6px ${rim.x}px;
  background: ${ink.rose};
  color: ${ink.paper};
  overflow-wrap: break-word;
  &:empty {
    display: none;
  }
`;

/** A field with its label above. */
export const Field = styled.label`
  display: flex;
  flex-direction: column;
  gap: 3px;
  font-size: 12px;
  color: ${ink.ink2};
  input,
  textarea,
  select {
    font: inherit;
    font-size: 13.5px;
    padding: 4px 8px;
    border: 1px solid ${ink.ink3};
    border-radius: 2px;
    background: ${ink.paper};
    color: ${ink.ink};
  }
`;

const Overlay = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  background: ${thin(ink.ink, 33)};
  display: grid;
  place-items: start center;
  padding-top: 9vh;
  z-index: 20;
`;

const Paper = styled.div`
  background: ${ink.paper};
  border: 1px solid ${ink.ink};
  padding: ${rim.y}px ${rim.x}px;
  max-width: 94vw;
  max-height: 82vh;
  overflow: auto;
  scroll-padding: ${rim.y}px 0 64px; /* what is come to by keys is not under the foot */
  h2 {
    margin-bottom: 12px;
  }
`;
