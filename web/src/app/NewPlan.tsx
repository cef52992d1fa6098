import { useState } from "react";
import { client, uploadOf } from "../data/client";
import { TextButton } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { FilePick } from "../parts/FilePick";
import type { Client, Making } from "./plansByClient";
import { starts } from "./starts";

type NewProps = { clients: Client[]; onMade: (request: Making) => void };

/** A further plan: blank, of a sample or of a file, for a client there is or a new one. */
export function NewPlan({ clients, onMade }: NewProps) {
  const [whose, setWhose] = useState("new");
  const client_id = whose === "new" ? null : Number(whose);
  const load = (chosen: File) =>
    client.POST("/api/plans/load", { params: { query: { client_id } }, ...uploadOf(chosen) });
  return (
    <footer>
      <span>
        New plan for{" "}
        <Choice
          label="Whose plan"
          inline
          value={whose}
          options={[
            { id: "new", name: "a new client" },
            ...clients.map((one) => ({ id: String(one.client_id), name: one.client })),
          ]}
          onChange={setWhose}
        />{" "}
        from
      </span>
      {starts.map(({ start, plan, name }) => (
        <TextButton
          key={start}
          onPress={() =>
            onMade(client.POST("/api/plans", { body: { name: plan, start, client_id } }))
          }
        >
          {name}
        </TextButton>
      ))}
      <FilePick accept={[".json", "application/json"]} onFile={(chosen) => onMade(load(chosen))}>
        Load a plan’s JSON …
      </FilePick>
    </footer>
  );
}
