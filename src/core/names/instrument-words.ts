import { fold } from "./words";

/*
 * What strips are called for: one line for each thing, in the words and abbreviations of several languages. The first word is the one
 * by which the thing goes here.
 */
const THINGS = `
kick bd bassdrum kd grossetrommel grossecaisse bombo cassa
snare sd sn kleinetrommel caisseclaire caja rullante
hihat hh hat hats charleston charley charles
tom toms rack hangetom
floor flr ft standtom floortom
overhead oh ohs overheads over
room rooms raum ambiance ambience ambient sala nave hall raumpaar
ride
crash cymbal cymbals becken cymbale platillo piatto
drum drums schlagzeug batterie bateria batteria kit schlagwerk
frame rahmentrommel
percussion perc schlaginstrumente percusion
shaker shakers
clap claps
bass bs basse bajo basso
guitar gtr gt git gitarre guitare guitarra chitarra
acoustic ac akustik acoustique
electric el elec elektrisch electrique electrica
amp amplifier verstarker ampli
di direct
piano pno pf klavier fluegel flugel
keys kbd keyboard keyboards tasten clavier
organ org orgel orgue organo
harmonium
accordion acc akkordeon accordeon
synth syn synthesizer synthe
pad pads
line
lead ld solo
voice vox voc vocal vocals vocalist stimme gesang voix chant voz canto
backing bv bvs bgv bgvs bck hintergrund choeurs coros
choir chor choeur coro
soprano sop sopran
alto alt
tenor ten
narrator narration sprecher voiceover vo conteur
strings str streicher cordes cuerdas archi
violin vln vn geige violon
viola vla vl bratsche
cello vc vlc violoncello violoncelle
contrabass cb kontrabass contrebasse contrabajo
nyckelharpa nh
harp harfe harpe arpa
brass blech blaser cuivres metales
trumpet tpt tp trp trompete trompette trompeta tromba
trombone tbn trb posaune
horn hn corno
tuba
quintet quintett
flute fl flote querflote flauta flauto
clarinet cl klarinette clarinette clarinete
oboe ob
bassoon fg fagott basson
sax saxophone saxofon
vibraphone vibes vib vibraphon
marimba
mallets
glockenspiel glock
bowed arco
loop loops
noise rauschen bruit
click tick ticks metronome
steps schritte pas
water wasser eau agua
reverb rev verb hallraum
plate platte plaque
echo
delay dly del
eighths achtel croches
return rtn fx aux
group grp gruppe bus
main master mix stereo summe haupt principal
close spot nah proche cerca
far fern loin lejos
near
rim rand
low tief grave
high hoch aigu
mid mitte milieu
inside in innen dedans
outside out aussen dehors
top oben dessus
bottom bot unten dessous
up above double doubled doppel
`;

/** Words that say on which side something is. */
const SIDES: Readonly<Record<string, "left" | "right" | "centre">> = {
  l: "left",
  left: "left",
  lt: "left",
  links: "left",
  gauche: "left",
  izquierda: "left",
  r: "right",
  right: "right",
  rt: "right",
  rechts: "right",
  droite: "right",
  droit: "right",
  derecha: "right",
  c: "centre",
  centre: "centre",
  center: "centre",
};

const MEANING: ReadonlyMap<string, string> = new Map(
  THINGS.trim()
    .split("\n")
    .flatMap((line) => {
      const words = line.split(" ");
      return words.map((word) => [word, words[0]!] as const);
    }),
);

/** What a strip's name says, whatever language or abbreviation it is written in. */
export interface StripWords {
  /** Things that are known, by the word for them here. */
  readonly things: readonly string[];
  /** What else stands in it, folded. */
  readonly others: readonly string[];
  readonly numbers: readonly string[];
  readonly side: "left" | "right" | "centre" | null;
}

/** Words of a name: also where two are written as one, as in "OHLeft" or "Gtr2". */
const pieces = (name: string): readonly string[] =>
  fold(name.replace(/(\p{Ll})(\p{Lu})/gu, "$1 $2").replace(/(\p{Lu}{2,})(\p{Lu}\p{Ll})/gu, "$1 $2"))
    .replace(/(\p{L})(\p{N})|(\p{N})(\p{L})/gu, "$1$3 $2$4")
    .match(/[\p{L}\p{N}]+/gu) ?? [];

/** Two words that stand for one thing, as "bass drum" or "floor tom". */
const PAIRS: Readonly<Record<string, string>> = {
  "bass drum": "kick",
  "grosse trommel": "kick",
  "grosse caisse": "kick",
  "kleine trommel": "snare",
  "caisse claire": "snare",
  "hi hat": "hihat",
  "floor tom": "floor",
  "double bass": "contrabass",
  "bowed bass": "contrabass",
};

/** An abbreviation with its side behind it, as "ohl". */
function sided(word: string): readonly string[] {
  const [stem, last] = [word.slice(0, -1), word.slice(-1)];
  return !MEANING.has(word) && (last === "l" || last === "r") && MEANING.has(stem) ? [stem, last] : [word];
}

function paired(words: readonly string[]): readonly string[] {
  const out: string[] = [];
  for (let at = 0; at < words.length; at++) {
    const pair = PAIRS[`${words[at]} ${words[at + 1]}`];
    out.push(pair ?? words[at]!);
    if (pair) at++;
  }
  return out;
}

/** What a strip's name says. */
export function stripWords(name: string): StripWords {
  const words = paired(pieces(name).flatMap(sided));
  const sides = words.flatMap((word) => (Object.hasOwn(SIDES, word) ? [SIDES[word]!] : []));
  const rest = words.filter((word) => !Object.hasOwn(SIDES, word));
  return {
    things: rest.flatMap((word) => MEANING.get(word) ?? []),
    others: rest.filter((word) => !MEANING.has(word) && !/^\p{N}+$/u.test(word)),
    numbers: rest.filter((word) => /^\p{N}+$/u.test(word)).map((number) => String(Number(number))),
    side: sides[0] ?? null,
  };
}
