import { createContext, useContext } from "react";
import type { Session } from "../../api/session";
import { type DeviceServices, servicesFor } from "../../state/device/services";
import { today } from "../../state/domain/wording";

interface SignedIn {
  session: Session;
  /** Ends the session here and in every tab, whether or not the server answers. */
  leave: () => void;
}

export const SessionContext = createContext<SignedIn | null>(null);

function useSignedIn(): SignedIn {
  const found = useContext(SessionContext);
  if (!found) throw new Error("nobody is signed in");
  return found;
}

export const useSession = (): Session => useSignedIn().session;

export const useLeave = (): (() => void) => useSignedIn().leave;

/** Today in the clinic's time zone. */
export const useToday = (): string => today(useSession().time_zone);

export const useServices = (): DeviceServices => servicesFor(useSession());

/** Signing, overriding, arranging, amending and exporting take a licence. */
export const isLicensed = (session: Session): boolean =>
  session.role === "owner" || session.role === "practitioner";

export const isStaff = (session: Session): boolean => session.role !== "student";
