import { CircleHelp, Redo2, Undo2 } from "lucide-react";
import { NavLink } from "react-router";
import { usePlan } from "../data/plan";
import { PlanMenu } from "./PlanMenu";
import * as S from "./Trail.styles";
import { stages } from "./stages";

type Props = { onKeys: () => void; onCommands: () => void };

/** The way from brief to results, each stage with what it now says. */
export function Trail({ onKeys, onCommands }: Props) {
  const { frame, id, undo, redo } = usePlan();
  const { journal } = frame;
  return (
    <S.Bar>
      <PlanMenu />
      <S.Path aria-label="Stages">
        {stages.map((stage) => (
          <NavLink key={stage.path} to={`/plan/${id}/${stage.path}`}>
            <strong>{stage.name}</strong>
            <small>{stage.result(frame)}</small>
          </NavLink>
        ))}
      </S.Path>
      <S.Tools>
        <S.Tool onPress={onCommands}>
          <kbd>Ctrl K</kbd> command
        </S.Tool>
        <S.Tool
          aria-label={journal.undo ? `Undo: ${journal.undo}` : "Nothing to undo"}
          isDisabled={!journal.undo}
          onPress={() => void undo()}
        >
          <Undo2 size={15} aria-hidden /> undo
        </S.Tool>
        <S.Tool
          aria-label={journal.redo ? `Redo: ${journal.redo}` : "Nothing to redo"}
          isDisabled={!journal.redo}
          onPress={() => void redo()}
        >
          <Redo2 size={15} aria-hidden />
        </S.Tool>
        <S.Tool aria-label="Keys" onPress={onKeys}>
          <CircleHelp size={16} aria-hidden />
        </S.Tool>
      </S.Tools>
    </S.Bar>
  );
}
