import { CircleHelp, Redo2, Undo2 } from "lucide-react";
import { NavLink, useLocation, useNavigate } from "react-router";
import { usePlan } from "../data/plan";
import { PlanMenu } from "./PlanMenu";
import * as S from "./Trail.styles";
import { Choice } from "../parts/Choice";
import { stages } from "./stages";
import { useNarrow } from "./useNarrow";

type Props = { onKeys: () => void; onCommands: () => void };

/** The way from brief to results, each stage with what it now says. */
export function Trail({ onKeys, onCommands }: Props) {
  const { summary, id, undo, redo } = usePlan();
  const { journal } = summary;
  const narrow = useNarrow();
  return (
    <S.Bar>
      <PlanMenu />
      <S.Path aria-label="Stages">
        {narrow ? (
          <StageMenu />
        ) : (
          stages.map((stage) => (
            <NavLink
              key={stage.path}
              to={`/plan/${id}/${stage.path}`}
              title={stage.result(summary)}
            >
              <strong>{stage.name}</strong>
              <small>{stage.result(summary)}</small>
            </NavLink>
          ))
        )}
      </S.Path>
      <S.Tools>
        <S.Tool onPress={onCommands}>
          <kbd>Ctrl K</kbd> <span>command</span>
        </S.Tool>
        <S.Tool
          aria-label={journal.undo ? `Undo: ${journal.undo}` : "Nothing to undo"}
          isDisabled={!journal.undo}
          onPress={() => void undo()}
        >
          <Undo2 size={15} aria-hidden /> <span>undo</span>
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

/** The stages where there is no room for a path: the one that is open, and a menu of all. */
function StageMenu() {
  const { summary, id } = usePlan();
  const navigate = useNavigate();
  const here = useLocation().pathname.split("/")[3] ?? "brief";
  return (
    <S.Menu>
      <Choice
        label="Stage"
        inline
        value={here}
        options={stages.map((stage) => ({
          id: stage.path,
          name: stage.name,
          about: stage.result(summary),
        }))}
        onChange={(path) => void navigate(`/plan/${id}/${path}`)}
      />
      <small>{stages.find((stage) => stage.path === here)?.result(summary)}</small>
    </S.Menu>
  );
}
