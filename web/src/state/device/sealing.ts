// What is unsent when its owner leaves: encrypted, so that nobody who comes after can read it. Only the
// owner's own session tells the key again.
import { type Keep, type Owner, ownPrefix, readJson } from "./keep";

interface Sealed {
  iv: string;
  text: string;
  /** Whose it is and how much, for the entry: names of colleagues, nothing of an athlete. */
  name: string;
  count: number;
}

const KINDS = ["outbox", "draft", "words"] as const;
const SEALED = "north-stride/sealed/";
const sealedAt = (owner: Owner) => `${ownPrefix("sealed", owner)}all`;

/** Where the browser has no ciphers (a page from another machine without HTTPS), nothing is sealed. */
export const canSeal = (): boolean => globalThis.crypto?.subtle !== undefined;

/** Who left something here that is not sent yet, and how much. */
export const sealedHere = (keep: Keep): { name: string; count: number }[] =>
  keep
    .under(SEALED)
    .map((key) => readJson<Sealed>(keep, key))
    .filter((sealed): sealed is Sealed => sealed !== null)
    .map(({ name, count }) => ({ name, count }));

/** Encrypts what an owner leaves. False where there was nothing, or no way to. */
export async function seal(keep: Keep, owner: Owner, name: string, key: string): Promise<boolean> {
  const prefixes = KINDS.map((kind) => ownPrefix(kind, owner));
  const keys = prefixes.flatMap((prefix) => keep.under(prefix));
  if (keys.length === 0 || !canSeal()) return false;
  const left = await opened(keep, owner, key);
  const told = { ...left, ...Object.fromEntries(keys.map((kept) => [kept, keep.getItem(kept)])) };
  const iv = crypto.getRandomValues(new Uint8Array(12));
  const text = await crypto.subtle.encrypt(
    { name: "AES-GCM", iv },
    await cipher(key),
    new TextEncoder().encode(JSON.stringify(told)),
  );
  const count = Object.keys(told).length;
  const sealed: Sealed = { iv: hex(iv), text: hex(new Uint8Array(text)), name, count };
  keep.setItem(sealedAt(owner), JSON.stringify(sealed));
  for (const kept of keys) keep.removeItem(kept);
  return true;
}

/** Puts back what its owner left, once they are signed in again. True where something came back. */
export async function unseal(keep: Keep, owner: Owner, key: string): Promise<boolean> {
  const left = await opened(keep, owner, key);
  const names = Object.keys(left);
  if (names.length === 0) return false;
  for (const name of names) keep.setItem(name, left[name] ?? "");
  keep.removeItem(sealedAt(owner));
  return true;
}

async function opened(keep: Keep, owner: Owner, key: string): Promise<Record<string, string>> {
  const sealed = readJson<Sealed>(keep, sealedAt(owner));
  if (!sealed || !canSeal()) return {};
  try {
    const plain = await crypto.subtle.decrypt(
      { name: "AES-GCM", iv: bytes(sealed.iv) },
      await cipher(key),
      bytes(sealed.text),
    );
    return JSON.parse(new TextDecoder().decode(plain)) as Record<string, string>;
  } catch {
    // Another key, or spoilt: it stays as it is, for a key that fits.
    return {};
  }
}

const cipher = (key: string): Promise<CryptoKey> =>
  crypto.subtle.importKey("raw", bytes(key), "AES-GCM", false, ["encrypt", "decrypt"]);

const hex = (raw: Uint8Array): string =>
  Array.from(raw, (byte) => byte.toString(16).padStart(2, "0")).join("");

const bytes = (text: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(text.match(/../g) ?? [], (pair) => Number.parseInt(pair, 16));
