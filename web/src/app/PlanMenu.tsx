import { Button, Dialog, DialogTrigger, Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";
import { usePlan } from "../data/plan";
import { ink, serif, whenNarrow } from "../look/tokens";
import { PlanList } from "./PlanList";

/** The plan's name, which opens the list of plans. */
export function PlanMenu() {
  const { summary } = usePlan();
  const { name, label } = summary.brief;
  const which = [label, summary.closed_as === null ? "" : "closed"].filter(Boolean).join(" ");
  const said = [name, which].filter(Boolean).join(" ");
  return (
    <DialogTrigger>
      <Name aria-label={`Plans: ${said}`}>
        <span>{name}</span>
        {which && <small> {which}</small>}
        <i aria-hidden>▾</i>
      </Name>
      <Overlay isDismissable>
        <Panel>
          <Dialog aria-label="Plans">{({ close }) => <PlanList close={close} />}</Dialog>
        </Panel>
      </Overlay>
    </DialogTrigger>
  );
}

const Name = styled(Button)`
  border: 0;
  background: none;
  cursor: pointer;
  padding: 0 14px 0 20px;
  display: grid;
  grid-template-columns: minmax(0, auto) auto;
  align-content: center;
  align-items: center;
  justify-items: start;
  column-gap: 8px;
  max-width: 27vw;
  min-width: 130px;
  @media (max-width: 1180px) {
    max-width: 22vw;
    padding: 0 10px 0 14px;
  }
  /* where all is wider than the window the name gives way, never a stage */
  flex: 0 1000 auto;
  color: ${ink.ink};
  outline-offset: -3px;
  span,
  small {
    max-width: 100%;
  }
  i {
    grid-area: 1 / 2 / span 2;
  }
  span {
    font-family: ${serif};
    font-size: 19px;
    font-weight: 600;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  small {
    font-size: 12px;
    color: ${ink.petalDeep};
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    min-width: 24px;
  }
  i {
    font-style: normal;
    font-size: 10px;
  }
  ${whenNarrow} {
    display: flex;
  }
`;

const Overlay = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 20;
`;

const Panel = styled(Modal)`
  position: absolute;
  left: 12px;
  top: 54px;
  max-height: 80vh;
  background: ${ink.paper};
  border: 1px solid ${ink.ink};
  border-radius: 2px;
  width: 620px;
  max-width: 92vw;
  overflow: auto;
  [role="dialog"] {
    outline: none;
  }
`;
