import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { client, taken, type Schemas } from "../data/client";
import { ink, serif, whenStacked } from "../look/tokens";
import { daySaid } from "../parts/days";
import { count, money, number, plural } from "../parts/format";
import { useGlances } from "./useGlances";

type Line = Schemas["ClientLine"];
type Glance = Schemas["Glance"];

/** Every client's plan in a line, the most urgent first. */
export function AllClients() {
  const lines = useQuery({
    queryKey: ["clients"],
    queryFn: () => taken<Line[]>(client.GET("/api/clients")),
    staleTime: 0,
  });
  const glances = useGlances(lines.data ?? []);
  useEffect(() => {
    document.title = "All clients · Milkwort";
  }, []);
  if (!lines.data)
    return (
      <Room>
        <h1>All clients</h1>
        {lines.error ? <p role="alert">{lines.error.message}</p> : <p role="status">Opening …</p>}
      </Room>
    );
  const order = [...lines.data].sort((a, b) => rank(glances, a) - rank(glances, b));
  const waiting = order.filter((line) => !(line.plan_id in glances)).length;
  return (
    <Room>
      <h1>All clients</h1>
      {lines.error && <p role="alert">{lines.error.message}</p>}
      <p role="status">
        {plural(order.length, "plan")}, the most urgent first: money out early, refused rows, sure
        stops, looks that are due, terms.
        {waiting > 0 && ` ${plural(waiting, "plan")} still being looked at …`}
      </p>
      {order.length === 0 ? (
        <p>
          There is no plan yet. <Link to="/">Make one, or look at the sample.</Link>
        </p>
      ) : (
        <table>
          <thead>
            <tr>
              <th scope="col">client and plan</th>
              <th scope="col">money this month</th>
              <th scope="col">pace</th>
              <th scope="col">customers</th>
              <th scope="col">what waits</th>
              <th scope="col">next look</th>
            </tr>
          </thead>
          <tbody>
            {order.map((line) => (
              <Row key={line.plan_id} line={line} glance={glances[line.plan_id]} />
            ))}
          </tbody>
        </table>
      )}
    </Room>
  );
}

/** Those that are not looked at yet come last, in the order they were made. */
const rank = (glances: Record<number, Glance | string>, line: Line): number => {
  const glance = glances[line.plan_id];
  return glance === undefined || typeof glance === "string" ? Infinity : glance.urgency;
};

function Row({ line, glance }: { line: Line; glance: Glance | string | undefined }) {
  const name = (
    <th scope="row">
      <Link to={`/plan/${line.plan_id}/${where(line, glance)}`}>{line.name}</Link>
      <small>
        {[line.client === line.name ? "" : line.client, line.label].filter(Boolean).join(" · ")}
      </small>
    </th>
  );
  if (glance === undefined || typeof glance === "string")
    return (
      <tr>
        {name}
        <td colSpan={5}>
          <Faint>{glance ?? "looking …"}</Faint>
        </td>
      </tr>
    );
  return (
    <tr>
      {name}
      <td>
        {glance.first === null ? (
          <Faint>
            {money(line.monthly_spend)} {line.currency} a month planned
          </Faint>
        ) : (
          <>
            {money(glance.spent)} of {money(glance.purse)} {line.currency}
            <small>to {daySaid(glance.last!)}</small>
          </>
        )}
      </td>
      <td>{pace(glance)}</td>
      <td>
        {glance.low === null ? (
          <Faint>no results</Faint>
        ) : (
          <>
            {number(glance.customers)}
            <small>
              of {count(glance.low)} to {count(glance.high)}
            </small>
          </>
        )}
      </td>
      <td>
        {waits(glance) || <Faint>nothing</Faint>}
        {glance.money > 0 && (
          <small>
            {money(glance.money)} {line.currency} spent on it
          </small>
        )}
      </td>
      <td>{glance.next_review === null ? <Faint>–</Faint> : daySaid(glance.next_review)}</td>
    </tr>
  );
}

function pace(glance: Glance) {
  if (glance.first === null) return <Faint>–</Faint>;
  if (glance.month_over) return "month over, to be closed";
  if (glance.out !== null) return <Rose>gone by {daySaid(glance.out)}</Rose>;
  return `${money(glance.left)} will be left`;
}

const waits = (glance: Glance): string =>
  [
    glance.refused > 0 && "rows refused",
    glance.stops > 0 && plural(glance.stops, "stop"),
    glance.reviews > 0 && plural(glance.reviews, "look"),
    glance.terms > 0 && plural(glance.terms, "term"),
  ]
    .filter(Boolean)
    .join(", ");

/** The view a plan opens at: what waits, where anything does. */
function where(line: Line, glance: Glance | string | undefined): string {
  if (glance === undefined || typeof glance === "string") return "brief";
  if (glance.refused > 0 && glance.stops === 0) return "hand-over";
  if (glance.first !== null) return "learn";
  return line.keywords > 0 ? "fit" : "brief";
}

const Room = styled.main`
  max-width: 1120px;
  margin: 0 auto;
  padding: 40px 20px 60px;
  h1 {
    font-size: 28px;
    margin-bottom: 4px;
  }
  p {
    color: ${ink.ink2};
    margin: 0 0 16px;
  }
  table {
    border-collapse: collapse;
    width: 100%;
    font-variant-numeric: tabular-nums;
  }
  thead th {
    font-weight: 400;
    color: ${ink.ink2};
    font-size: 12px;
  }
  th,
  td {
    text-align: left;
    vertical-align: baseline;
    padding: 8px 16px 8px 0;
    border-bottom: 1px solid ${ink.rule};
  }
  tbody th {
    font-family: ${serif};
    font-size: 16px;
    font-weight: 600;
  }
  a {
    color: ${ink.petalDeep};
  }
  small {
    display: block;
    font-size: 12px;
    font-weight: 400;
    color: ${ink.ink2};
  }
  ${whenStacked} {
    padding: 16px 14px 40px;
    overflow-x: auto;
  }
`;

const Faint = styled.span`
  color: ${ink.ink2};
`;

const Rose = styled.b`
  color: ${ink.rose};
  font-weight: 500;
`;
