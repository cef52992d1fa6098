import { useState } from "react";
import { Checkbox } from "react-aria-components";
import { useNavigate } from "react-router";
import { client, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import { MainButton } from "../../parts/Button";
import { daySaid } from "../../parts/days";
import { delta, money, number, percent, plural } from "../../parts/format";
import * as S from "./Learn.styles";
import type { LearnView } from "./view";

type Closing = Required<Pick<Schemas["CloseRequest"], "figures" | "stops" | "terms" | "ranges">>;
const inputs: { id: string; name: string; about: string }[] = [
  { id: "searches", name: "searches", about: "how many search, against what was planned" },
  { id: "click_rate", name: "click rate", about: "clicks of the showings there were" },
  { id: "price", name: "prices", about: "where the market lies, not what was paid on average" },
  { id: "conversion", name: "conversion", about: "customers of the clicks there were" },
];
const choices: { id: keyof Closing; name: string }[] = [
  { id: "figures", name: "corrected searches, prices and rates of every keyword that ran" },
  { id: "terms", name: "all that is suggested about terms" },
  { id: "stops", name: "keywords that evidence stops are dropped" },
  { id: "ranges", name: "ranges of conversion as narrow as what was sold leaves them" },
];

/** What the assumptions should have been, and the next month that begins with it. */
export function Corrections({ view }: { view: LearnView }) {
  const { id, summary } = usePlan();
  const { complain, say } = useSaying();
  const navigate = useNavigate();
  const [closing, setClosing] = useState<Closing>({
    figures: true,
    stops: true,
    terms: true,
    ranges: true,
  });
  const [asked, setAsked] = useState(false);
  const close = async () => {
    setAsked(true);
    try {
      const made = await taken<Schemas["Closed"]>(
        client.POST("/api/plans/{plan_id}/learn/close", {
          params: { path: { plan_id: id } },
          body: { label: "", ...closing },
        }),
      );
      say(
        `${made.label} is a version of its own: ${plural(made.corrected, "keyword")} corrected, ${number(made.stopped)} stopped, ${number(made.blocked)} blocked, ${number(made.added)} added`,
      );
      await navigate(`/plan/${made.id}/fit?view=versions`);
    } catch (error) {
      complain(error);
    }
    setAsked(false);
  };
  const { currency } = summary.brief.values;
  const holds = Object.keys(view.held).length > 0;
  return (
    <S.Page>
      <S.Table>
        <caption>
          The whole plan, by all days since {daySaid(view.evidence_since ?? view.since ?? "")}, from
          uncorrected figures, each shrunk by how much is known; nothing is applied unasked
        </caption>
        <thead>
          <tr>
            <th scope="col">input</th>
            <th scope="col">seen over planned</th>
            {holds && <th scope="col">in the plan already</th>}
            <th scope="col">offered</th>
          </tr>
        </thead>
        <tbody>
          {inputs.map(({ id: name, name: said, about }) => {
            const factor = view.corrections[name] ?? 1;
            const held = view.held[name] ?? 1;
            const known = name !== "searches" || view.searches_known;
            return (
              <tr key={name}>
                <th scope="row">
                  {said} <small>{about}</small>
                </th>
                <td data-number>{known ? `× ${number(factor, 3)}` : "–"}</td>
                {holds && <td data-number>× {number(held, 3)}</td>}
                <td>
                  {known
                    ? `${delta((factor / held - 1) * 100, 1) || "+0"} %`
                    : "the money ran out, and nobody says how many searched"}
                </td>
              </tr>
            );
          })}
        </tbody>
      </S.Table>
      <S.Table>
        <caption>Groups, most money first</caption>
        <thead>
          <tr>
            <th scope="col">group</th>
            <th scope="col">spent, {currency}</th>
            <th scope="col">{view.on_enquiries ? "enquiries" : "customers"}</th>
            <th scope="col">sold against planned</th>
            <th scope="col">misses the rule</th>
          </tr>
        </thead>
        <tbody>
          {view.groups.slice(0, 40).map((group) => (
            <tr key={group.group}>
              <th scope="row">{group.group}</th>
              <td data-number>{money(group.spend)}</td>
              <td data-number>{number(group.customers)}</td>
              <td data-number>× {number(group.factor, 2)}</td>
              <td data-number>{group.missing === null ? "–" : percent(group.missing, 0)}</td>
            </tr>
          ))}
        </tbody>
      </S.Table>
      <S.Close aria-label="Close the month">
        <h2>Close the month</h2>
        <p>
          The next month begins as a version beside this plan, with what was learnt; this one stands
          as it was, until it is opened again. The next one takes over:
        </p>
        {choices.map((choice) => (
          <Checkbox
            key={choice.id}
            isSelected={closing[choice.id]}
            onChange={(on) => setClosing({ ...closing, [choice.id]: on })}
          >
            <span aria-hidden />
            {choice.name}
          </Checkbox>
        ))}
        <MainButton isDisabled={asked || view.closed_as !== null} onPress={() => void close()}>
          Close the month
        </MainButton>
      </S.Close>
    </S.Page>
  );
}
