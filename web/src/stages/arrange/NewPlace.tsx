import { useState } from "react";
import { TextButton } from "../../parts/Button";
import { Blank } from "../../parts/Blank";

type Kind = "campaign" | "group";
type Props = { onMake: (kind: Kind, name: string) => Promise<boolean> };

/** A campaign or a group that nothing is in yet, made by its name. */
export function NewPlace({ onMake }: Props) {
  const [kind, setKind] = useState<Kind | null>(null);
  if (kind === null)
    return (
      <>
        <TextButton onPress={() => setKind("campaign")}>new campaign</TextButton>{" "}
        <TextButton onPress={() => setKind("group")}>new group</TextButton>{" "}
      </>
    );
  return (
    <>
      new {kind}:{" "}
      <Blank
        label={`Name of the new ${kind}`}
        value=""
        placeholder="its name"
        onCommit={async (name) => {
          if (!name.trim()) {
            setKind(null);
            return true;
          }
          const made = await onMake(kind, name);
          if (made) setKind(null);
          return made;
        }}
      />{" "}
      <TextButton onPress={() => setKind(null)}>leave it</TextButton>{" "}
    </>
  );
}
