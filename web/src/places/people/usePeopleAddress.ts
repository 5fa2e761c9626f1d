import { useSearchParams } from "react-router";

/** What is looked for and who is chosen, as the address has it: it survives a reload and can be sent on. */
export interface PeopleAddress {
  search: string;
  squad: string | null;
  archived: boolean;
  athlete: string | null;
}

export function usePeopleAddress() {
  const [params, setParams] = useSearchParams();
  const address: PeopleAddress = {
    search: params.get("search") ?? "",
    squad: params.get("squad"),
    archived: params.has("archived"),
    athlete: params.get("athlete"),
  };
  const change = (part: Partial<PeopleAddress>) =>
    setParams((before) => written(before, part), { replace: true });
  return { address, change };
}

function written(before: URLSearchParams, part: Partial<PeopleAddress>): URLSearchParams {
  const next = new URLSearchParams(before);
  for (const [name, value] of Object.entries(part)) {
    if (value === null || value === "" || value === false) next.delete(name);
    else next.set(name, value === true ? "yes" : value);
  }
  return next;
}
