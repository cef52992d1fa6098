import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { client, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { Day } from "../../parts/Day";
import { ItemsAway } from "../../parts/TakeAway";
import { number, plural } from "../../parts/format";
import * as S from "./HandOver.styles";

type Item = Schemas["HandOverItem"];
type Props = { sent: Item[]; since: number | null; onSince: (id: number) => void };

const statuses: { id: Item["status"]; name: string }[] = [
  { id: "written", name: "written" },
  { id: "running", name: "running" },
  { id: "paused", name: "paused" },
];

/** A shelf of what was sent: dated copies, each to be fetched, compared with now, gone back to. */
export function Sent({ sent, since, onSince }: Props) {
  const { id } = usePlan();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const { complain } = useSaying();
  const path = (item: Item) => ({ params: { path: { plan_id: id, hand_over_id: item.id } } });
  const tell = async (item: Item, body: Schemas["HandOverState"]) => {
    try {
      await taken(
        client.PATCH("/api/plans/{plan_id}/hand-over/{hand_over_id}", { ...path(item), body }),
      );
      await queries.invalidateQueries({ queryKey: ["/hand-over", id] });
      return true;
    } catch (error) {
      complain(error);
      return false;
    }
  };
  const back = (item: Item) =>
    taken<{ id: number }>(
      client.POST("/api/plans/{plan_id}/hand-over/{hand_over_id}/version", path(item)),
    ).then(
      (made) => navigate(`/plan/${made.id}/fit?view=versions`),
      (error: unknown) => complain(error),
    );
  if (sent.length === 0)
    return <S.Shelf>Nothing yet. What you send is kept here as it was, with the plan.</S.Shelf>;
  return (
    <S.Shelf aria-label="What was sent">
      <a href={`/api/plans/${id}/rhythm.ics`} download>
        when to look at it, as a calendar
      </a>
      <ItemsAway
        label="What was sent"
        items={sent}
        columns={{
          at: (item) => item.at,
          status: (item) => item.status,
          "runs from": (item) => item.runs_from ?? "",
          version: (item) => item.label,
          revision: (item) => item.revision,
          files: (item) => item.files.map((file) => file.filename).join(", "),
          "still open": (item) => item.points.join(" "),
          note: (item) => item.note,
        }}
      />
      <ul>
        {sent.map((item) => (
          <li key={item.id} data-open={item.id === since || undefined}>
            <b>{new Date(item.at).toLocaleString()}</b>
            {item.label && <span>{item.label}</span>}
            <Choice
              label={`State of what was sent at ${new Date(item.at).toLocaleString()}`}
              inline
              value={item.status}
              options={statuses}
              onChange={(status) => void tell(item, { status })}
            />
            {item.runs_from !== null && (
              <span>
                from{" "}
                <Day
                  label={`First day of what was sent at ${new Date(item.at).toLocaleString()}`}
                  value={item.runs_from}
                  onCommit={(runs_from) => tell(item, { runs_from })}
                />
              </span>
            )}
            <Blank
              label={`Note on what was sent at ${new Date(item.at).toLocaleString()}`}
              value={item.note}
              placeholder="note"
              onCommit={(note) => tell(item, { note })}
            />
            <span>revision {number(item.revision)}</span>
            <TextButton isDisabled={!item.comparable} onPress={() => onSince(item.id)}>
              compare with now
            </TextButton>
            <TextButton isDisabled={!item.comparable} onPress={() => void back(item)}>
              go back to it as a version
            </TextButton>
            <div data-files>
              {item.files.map((file) => (
                <a
                  key={file.id}
                  href={`/api/plans/${id}/hand-over/${item.id}/files/${file.id}`}
                  download={file.filename}
                  title={`SHA-256 ${file.sha256}`}
                >
                  {file.filename} ({plural(file.rows, "row")})
                </a>
              ))}
            </div>
            {item.points.length > 0 && (
              <small>Still open then: {item.points.slice(0, 3).join(" ")}</small>
            )}
          </li>
        ))}
      </ul>
    </S.Shelf>
  );
}
