import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { withinPoll } from "../../api/polling";
import { readChanges } from "../../api/screens";
import { deviceName } from "../../state/device/keep";
import { heardOf } from "../../state/screen/others";
import { useServices } from "../base/session";
import { useSayWhere } from "./useSayWhere";

const EVERY_MS = 1500;

/** For a place without a bench: tells when others wrote to an open screen, and where they are. */
export function useFollow(screen: string, revision: number | null, onChanged: () => void): void {
  const { keep } = useServices();
  useSayWhere(screen);
  const { data } = useQuery({
    queryKey: ["follow", screen, revision],
    queryFn: ({ signal }) =>
      readChanges(screen, revision ?? 0, deviceName(keep), withinPoll(signal)),
    enabled: revision !== null,
    refetchInterval: EVERY_MS,
    gcTime: 0,
  });
  useEffect(() => {
    if (data) heardOf(screen, data.others);
  }, [data, screen]);
  const behind = data !== undefined && revision !== null && data.revision > revision;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each newer revision
  useEffect(() => {
    if (behind) onChanged();
  }, [behind, data?.revision]);
}
