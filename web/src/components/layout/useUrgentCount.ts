import { useQuery } from "@tanstack/react-query";
import { urgentCountQuery } from "../../api/day";

/** How many urgent actions nobody has in hand; null while nobody knows. */
export function useUrgentCount(): number | null {
  return useQuery(urgentCountQuery).data?.count ?? null;
}
