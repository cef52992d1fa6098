import { useLocation, useNavigate } from "react-router";
import styled from "styled-components";
import { usePlan } from "../data/plan";
import { ink, whenNarrow } from "../look/tokens";
import { TextButton } from "../parts/Button";
import { endPath, stepLeft, steps, useOnPath } from "./firstPath";
import { stages } from "./stages";

/** What to do next in a plan begun by hand: one sentence, which steps aside. */
export function NextStep() {
  const { id, summary } = usePlan();
  const navigate = useNavigate();
  const here = useLocation().pathname.split("/")[3];
  const isOn = useOnPath(id);
  const at = stepLeft(summary);
  const step = steps[at];
  if (!isOn || !step) return null;
  const { name } = stages.find(({ path }) => path === step.path)!;
  return (
    <Band aria-label="What to do next">
      <b>
        {at + 1} of {steps.length}, {name}:
      </b>{" "}
      {step.says}{" "}
      {here !== step.path && (
        <TextButton onPress={() => void navigate(`/plan/${id}/${step.path}`)}>
          go to {name}
        </TextButton>
      )}{" "}
      <TextButton onPress={() => endPath(id)}>I know my way</TextButton>
    </Band>
  );
}

const Band = styled.section`
  padding: 5px 20px;
  border-bottom: 1px solid ${ink.rule};
  background: ${ink.paper2};
  color: ${ink.ink2};
  b {
    color: ${ink.ink};
  }
  button {
    margin-left: 8px;
  }
  ${whenNarrow} {
    display: none;
  }
`;
