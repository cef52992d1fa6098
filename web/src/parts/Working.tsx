import styled from "styled-components";
import { client } from "../data/client";
import { useProgress } from "../data/progress";
import { ink } from "../look/tokens";
import { Button } from "./Button";
import { number } from "./format";

type Props = { what: string; job: string };

/** Long work under way: what, how far, and a way to stop it. */
export function Working({ what, job }: Props) {
  const progress = useProgress(job);
  const share = progress && progress.of > 1 ? progress.done / progress.of : null;
  const stop = () => client.POST("/api/jobs/{name}/stop", { params: { path: { name: job } } });
  return (
    <Box>
      <p role="status">
        {progress ? `${what}: ${progress.what}` : `${what} …`}
        {share !== null && `, ${number(progress!.done)} of ${number(progress!.of)}`}
      </p>
      <Bar
        role="progressbar"
        aria-label={`Progress of ${what}`}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={share === null ? undefined : Math.round(share * 100)}
      >
        <i style={{ width: `${(share ?? 0) * 100}%` }} />
      </Bar>
      <Button onPress={() => void stop()}>Stop</Button>
    </Box>
  );
}

const Box = styled.div`
  padding: 56px 48px;
  max-width: 64ch;
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 10px;
  color: ${ink.ink2};
`;

const Bar = styled.div`
  width: 100%;
  height: 5px;
  border: 1px solid ${ink.ink3};
  i {
    display: block;
    height: 100%;
    background: ${ink.petal};
  }
`;
