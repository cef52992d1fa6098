import { Page, Quiet } from "../../parts/Screen";

/** Says in a line what this stage will do. */
export function Arrange() {
  return (
    <Page>
      <h1>Arrange</h1>
      <p>
        <Quiet>
          Not built yet. Here close keywords will be put together in ad groups with their ads,
          landing pages and negatives; until then a keyword keeps the group its file gave it.
        </Quiet>
      </p>
    </Page>
  );
}
