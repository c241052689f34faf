import type { HeardSound } from "@/clients/sound-engine";
import { matchingGains } from "@/core/audition/match";
import { type Listening, NO_OUTLINE, get, heardSide, phraseOf, set, theEngine } from "./state";

export const GONE = "This material cannot be read any more. Choose another.";

/** Draws what is played: the material or, after the first press, the phrase. */
export async function showPicture(): Promise<void> {
  const { material, side } = get();
  const phrase = phraseOf(get()) ? heardSide(side) : null;
  const isWanted = () => get().material === material && Boolean(phraseOf(get())) === Boolean(phrase);
  try {
    const picture = await theEngine().picture(material, phrase);
    // Another was chosen meanwhile.
    if (isWanted()) set(picture);
  } catch {
    if (isWanted()) set({ outline: NO_OUTLINE, seconds: 0, ...(phrase ? {} : { trouble: GONE }) });
  }
}

export function setMatch(match: boolean): void {
  set({ match });
  sendGains();
}

/** Long enough to let a quick walk through a list pass by. In milliseconds. */
const MEASURE_AFTER = 120;
let measuring: ReturnType<typeof setTimeout> | undefined;
let round = 0;

/** Before the first press the browser gives no sound: what goes through processors is measured from then on. */
function whenTouched(run: () => void): void {
  if (navigator.userActivation.hasBeenActive) return run();
  const once = { once: true, capture: true } as const;
  window.addEventListener("keydown", run, once);
  window.addEventListener("pointerdown", run, once);
}

let waitsForTouch = false;

export function scheduleMeasuring(): void {
  if (waitsForTouch) return;
  waitsForTouch = true;
  whenTouched(() => {
    waitsForTouch = false;
    measureSoon();
  });
}

function measureSoon(): void {
  clearTimeout(measuring);
  measuring = setTimeout(() => void measureAll(), MEASURE_AFTER);
}

/** Loudness of each side over the second pass of the loop; an older round never overwrites a newer one. */
async function measureAll(): Promise<void> {
  const mine = ++round;
  const { material, stretch, a, b } = get();
  const of = (sound: HeardSound | null) => theEngine().measure(material, stretch, sound);
  const instrument = heardSide("a")?.instrument;
  const show = (measured: Listening["measured"]): boolean => {
    if (mine !== round) return false;
    set({ measured: { ...get().measured, ...measured } });
    sendGains();
    return true;
  };
  try {
    const dry = await of(instrument ? { chain: [], instrument } : null);
    if (!show({ dry })) return;
    if (!show({ a: a ? await of(heardSide("a")) : dry })) return;
    if (b && !show({ b: await of(heardSide("b")) })) return;
    set({ stale: false });
    if (phraseOf(get())) await showPicture();
  } catch {
    // What cannot be measured, because its material is gone, is shown without figures.
  }
}

export function sendGains(): void {
  const { match, measured, kept, beside, heardB } = get();
  const even = { dry: 1, a: 1, b: 1 };
  const { dry, a } = measured;
  if (!match || !dry) return theEngine().setGains(even);
  const has = kept !== null || beside !== null || heardB;
  const loudness = { dry: dry.integratedLufs, a: (a ?? dry).integratedLufs };
  const b = has ? (measured.b?.integratedLufs ?? loudness.a) : loudness.a;
  theEngine().setGains(matchingGains({ ...loudness, b }));
}
