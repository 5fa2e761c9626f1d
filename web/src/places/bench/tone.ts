const HERTZ = 880;
const SECONDS = 0.25;

/** One short tone: the target is reached. A device without sound stays quiet. */
export function tone(): void {
  if (typeof AudioContext === "undefined") return;
  const context = new AudioContext();
  const oscillator = context.createOscillator();
  oscillator.frequency.value = HERTZ;
  oscillator.connect(context.destination);
  oscillator.onended = () => void context.close();
  oscillator.start();
  oscillator.stop(context.currentTime + SECONDS);
}
