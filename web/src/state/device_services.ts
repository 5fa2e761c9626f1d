// One outbox and one sender for the signed-in user on this device.
import { writeAnswers } from "../api/screens";
import { deviceName, type Owner } from "./device";
import { Drafts, keepRefusal } from "./drafts";
import { Outbox } from "./outbox";
import { Sender } from "./sender";

export interface DeviceServices {
  owner: Owner;
  outbox: Outbox;
  sender: Sender;
  drafts(screen: string): Drafts;
}

const LOCK = "north-stride-sender";

/** Two tabs take turns; where the browser has no locks, sending twice is harmless. */
function alone<T>(work: () => Promise<T>): Promise<T> {
  return navigator.locks ? (navigator.locks.request(LOCK, work) as Promise<T>) : work();
}

let current: DeviceServices | null = null;

export function servicesFor(owner: Owner): DeviceServices {
  if (current?.owner.user === owner.user && current.owner.clinic === owner.clinic) return current;
  current?.sender.stop();
  const keep = window.localStorage;
  const outbox = new Outbox(keep, owner);
  const sender = new Sender(outbox, deviceName(keep), writeAnswers, alone);
  sender.onRefused((what) => keepRefusal(keep, owner, what));
  current = { owner, outbox, sender, drafts: (screen) => new Drafts(keep, owner, screen) };
  sender.wake();
  const wake = () => sender.wake();
  window.addEventListener("online", wake);
  // Another tab put something in or took something out.
  window.addEventListener("storage", wake);
  return current;
}
