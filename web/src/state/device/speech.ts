// What is asked, said aloud by a voice of this device: nothing leaves it, and no name is ever spoken.
import { createStore } from "./store";

const ALOUD = "north-stride/aloud";

export const aloud = createStore<boolean>(() => window.localStorage.getItem(ALOUD) === "yes");

export function sayAloud(on: boolean): void {
  window.localStorage.setItem(ALOUD, on ? "yes" : "no");
  aloud.setState(on);
  if (!on) window.speechSynthesis?.cancel();
}

/** Said at once, over what was being said. Silent where it is not wanted or no voice is on the device. */
export function say(words: string): void {
  const speech = window.speechSynthesis;
  if (!aloud.getState() || !speech) return;
  const voice = speech.getVoices().find((each) => each.localService && /^en/i.test(each.lang));
  if (!voice) return;
  speech.cancel();
  const spoken = new SpeechSynthesisUtterance(words);
  spoken.voice = voice;
  spoken.lang = voice.lang;
  speech.speak(spoken);
}
