import { useMutation } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import type { Schema } from "../../api/client";
import { beginScreen } from "../../api/screens";
import { stepTo } from "../../state/domain/addresses";
import { useToday } from "../base/session";

export type Purpose = Schema["ScreenInput"]["purpose"];

interface Beginning {
  id: string;
  purpose: Purpose;
  /** The tests to be done; none for what the purpose asks for. */
  planned?: string[];
}

/** Begins a screen of an athlete and goes to its story: one asks first. */
export function useBegin(athlete: string) {
  const navigate = useNavigate();
  const date = useToday();
  return useMutation({
    mutationFn: ({ id, purpose, planned = [] }: Beginning) =>
      beginScreen({ id, athlete_id: athlete, date, purpose, planned }),
    onSuccess: (screen) => navigate(stepTo(screen.id, "story")),
  });
}
