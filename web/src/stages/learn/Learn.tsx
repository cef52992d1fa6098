import { Page, Quiet } from "../../parts/Screen";

/** Says in a line what this stage will do. */
export function Learn() {
  return (
    <Page>
      <h1>Learn</h1>
      <p>
        <Quiet>
          Not built yet. Here results will be held against the plan: what people really typed, which
          keywords to stop, wait for or raise, and which assumptions to correct.
        </Quiet>
      </p>
    </Page>
  );
}
