import { createContext, useContext } from "react";
import type { Session } from "../api/session";
import { type DeviceServices, servicesFor } from "../state/device_services";
import { today } from "../state/wording";

export const SessionContext = createContext<Session | null>(null);

export function useSession(): Session {
  const session = useContext(SessionContext);
  if (!session) throw new Error("nobody is signed in");
  return session;
}

/** Today in the clinic's time zone. */
export const useToday = (): string => today(useSession().time_zone);

export function useServices(): DeviceServices {
  const session = useSession();
  return servicesFor({ clinic: session.clinic_id, user: session.user_id });
}

/** Signing, overriding, arranging, amending and exporting take a licence. */
export const isLicensed = (session: Session): boolean =>
  session.role === "owner" || session.role === "practitioner";

export const isStaff = (session: Session): boolean => session.role !== "student";
