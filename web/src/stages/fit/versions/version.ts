import { useNavigate } from "react-router";
import type { Schemas } from "../../../data/client";

export type Version = Schemas["VersionItem"];

/** What a version is called; the one all others come from has no name until it is given one. */
export const nameOf = (version: Version): string =>
  version.label || (version.is_first ? "As first made" : "Unnamed");

/** Opens another version in its place. */
export function useSwitching(): (version: number) => void {
  const navigate = useNavigate();
  return (version) => void navigate(`/plan/${version}/fit?view=versions`);
}
