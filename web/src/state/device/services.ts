// One outbox and one sender for the signed-in user on this device, until they leave.
import { measureIdle } from "../../api/client";
import { writeAnswers } from "../../api/screens";
import type { Session } from "../../api/session";
import { BrowserDisk, browserTabs } from "./disk";
import { Drafts, keepRefusal } from "./drafts";
import { browserPages } from "./journal";
import { DeviceKeep, deviceName, type Owner } from "./keep";
import { Outbox } from "./outbox";
import { browserShared, Presence } from "./presence";
import { seal, unseal } from "./sealing";
import { Sender } from "./sender";

export interface DeviceServices {
  owner: Owner;
  keep: DeviceKeep;
  outbox: Outbox;
  sender: Sender;
  drafts(screen: string): Drafts;
  /** Ends them for good: nothing of this owner is sent or listened for any more. */
  stop(): void;
}

const LOCK = "north-stride-sender";

export const keep = new DeviceKeep(
  new BrowserDisk(window.localStorage, browserPages()),
  browserTabs(),
);
export const presence = new Presence(browserShared(window.localStorage));
measureIdle(() => presence.idleMs());

/** Two tabs take turns; where the browser has no locks, sending twice is harmless. */
function alone<T>(work: () => Promise<T>): Promise<T> {
  return navigator.locks ? (navigator.locks.request(LOCK, work) as Promise<T>) : work();
}

const ownerOf = (session: Session): Owner => ({ clinic: session.clinic_id, user: session.user_id });

function begin(owner: Owner): DeviceServices {
  const outbox = new Outbox(keep, owner);
  const sender = new Sender(outbox, deviceName(keep), writeAnswers, alone);
  sender.onRefused((what) => keepRefusal(keep, owner, what));
  const wake = () => sender.wake();
  window.addEventListener("online", wake);
  // Another tab put something in or took something out.
  const unheard = keep.onForeign(wake);
  return {
    owner,
    keep,
    outbox,
    sender,
    drafts: (screen) => new Drafts(keep, owner, screen),
    stop: () => {
      sender.stop();
      window.removeEventListener("online", wake);
      unheard();
      outbox.close();
    },
  };
}

let current: { services: DeviceServices; name: string; key: string } | null = null;

/** What the signed-in user works with. One at a time: another's is ended first. */
export function servicesFor(session: Session): DeviceServices {
  const owner = ownerOf(session);
  const same =
    current?.services.owner.user === owner.user && current.services.owner.clinic === owner.clinic;
  if (current && same) return current.services;
  current?.services.stop();
  current = { services: begin(owner), name: session.name, key: session.seal_key };
  current.services.sender.wake();
  return current.services;
}

/** Before the places open: what this user left here sealed is theirs again. */
export async function takeBack(session: Session): Promise<void> {
  if (await unseal(keep, ownerOf(session), session.seal_key)) servicesFor(session).sender.wake();
}

/** Their owner leaves, or somebody else comes: nothing more is sent, what is unsent is sealed. */
export async function leaveBehind(): Promise<void> {
  const leaving = current;
  current = null;
  leaving?.services.stop();
  if (leaving) await seal(keep, leaving.services.owner, leaving.name, leaving.key);
  // Sealed where it lasts before the page may go.
  await keep.settled();
}
