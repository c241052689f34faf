import type { WrapUp } from "@/contracts/wrap-up";
import { nearnessOf } from "@/core/library/near-copies";
import type { NearestIndex } from "@/core/library/nearest-index";
import { proposeCard } from "@/core/library/proposal";
import { wordsOf } from "@/core/names/words";
import { fingerprint } from "@/core/presets/fingerprint";
import { isUnsaved, referenceOf } from "@/core/presets/standing";
import { type Project, stripsById } from "@/core/projects/project";
import { ok } from "@/core/result";
import { type Strip, stripName } from "@/core/strips/strip";
import { type Find, findsIn, isAloneIn } from "@/core/wrap-up/finds";
import type { Found } from "@/core/wrap-up/once";
import { type FindStanding, type Sound, proposedAmong, standingOf } from "@/core/wrap-up/standing";
import { type Told, readingSpent, turnedIn, weightOf } from "@/core/wrap-up/work";
import type { Executor } from "../../data/executor";
import type { Outcome } from "../../failure";
import { cardsOfRows, type KnownSound, soundsById, soundsLike } from "../../repositories/known-sounds";
import * as projects from "../../repositories/projects";
import * as revisions from "../../repositories/revisions";
import { type WrapUpRecord, findWrapUp } from "../../repositories/wrap-ups";
import { nearestNow } from "../../search/nearest-search";
import type { Context } from "../../store/context";
import { takingTurns } from "../../turns";
import { noProject } from "../projects/body";
import { meantBy, readingSaved } from "../projects/saved";

/** Changes that are read at once, and of how many at most: what lies further back weighs little. */
const CHUNK = 5000;
const MOST_CHANGES = 20_000;

/** Further than this nothing is near, and nobody would hear it beside. */
const FAR = 0.5;

/** Sounds that are looked through for how those of a strip's name are filed. */
const LOOKED_THROUGH = 30;

/** What was done to a project, oldest first; of before that was kept, nothing. */
async function toldOf(db: Executor, project: string): Promise<readonly Told[]> {
  const tell = revisions.tellingBack(db, project, null);
  const told: Told[] = [];
  for (let isMore = true; isMore && told.length < MOST_CHANGES; ) {
    const some = await tell(CHUNK);
    for (const { at, about } of some) if (about) told.push({ at: Date.parse(at), about });
    isMore = some.length === CHUNK;
  }
  return told.reverse();
}

const soundOf = ({ id, name }: KnownSound, version: number): Sound => ({ preset: id, name, version });

/** The presets as which the whole sound of a strip is saved, by the strip; of what is saved nowhere, nothing. */
async function savedWhole(db: Executor, { strips }: Project): Promise<ReadonlyMap<string, Sound>> {
  const saved = readingSaved(db);
  const whole = new Map<string, Sound>();
  for (const strip of strips) {
    const from = referenceOf(strip);
    if (from && !isUnsaved(strip, await meantBy(strip, saved)))
      whole.set(strip.id, { preset: from.preset, name: from.name, version: from.version });
  }
  return whole;
}

type Looked = Find & { readonly fingerprint: string };

/** What has the same sound: by itself, or as a part of what its strip, or its chain, is saved as. */
function sameAs(finds: readonly Looked[], like: ReadonlyMap<string, Sound>, whole: ReadonlyMap<string, Sound>) {
  const chains = new Map<string, Sound>();
  for (const { level, place, fingerprint: print } of finds) {
    const same = like.get(print);
    if (level === "chain" && same) chains.set(`${place.strip} ${place.layer ?? ""}`, same);
  }
  return ({ level, place, fingerprint: print }: Looked): Sound | null => {
    const own = like.get(print);
    if (own) return own;
    if (level !== "plugin" && level !== "chain") return null;
    return chains.get(`${place.strip} ${place.layer ?? ""}`) ?? whole.get(place.strip) ?? null;
  };
}

/** Those that what is near can stand for: of what also sends, or goes on elsewhere, its plugins alone tell too little. */
const isItsPlugins = ({ level }: Find): boolean => level === "plugin" || level === "chain";

function nearestTo(index: NearestIndex, { level, content, fingerprint: print }: Looked) {
  const nearness = level === "sends" ? null : nearnessOf({ id: "", content, fingerprint: print });
  return nearness && index.nearest(nearness, FAR);
}

async function cardsFor(
  { db, search }: Context,
  project: Project,
  finds: readonly Find[],
  date: string,
): Promise<WrapUp["cards"]> {
  const { artist, client, song, name } = project;
  const strips = stripsById(project);
  const some = [...new Set(finds.map(({ place }) => place.strip))].flatMap((id) => strips.get(id) ?? []);
  const froms = some.flatMap((strip) => referenceOf(strip)?.preset ?? []);
  const loaded = await soundsById(db, froms);
  const cardOf = async (strip: Strip) => {
    const words = wordsOf(stripName(strip)).map((word) => `"${word}"`);
    const others = words.length > 0 ? await cardsOfRows(db, search.rowsOf(words.join(" "), LOOKED_THROUGH)) : [];
    const from = loaded.get(referenceOf(strip)?.preset ?? "");
    const { folder, purpose, tags, played } = proposeCard(
      { artist, strip: stripName(strip) },
      from && !from.binned ? from.card : null,
      others,
    );
    const said = { artist, client, song, project: name, strip: stripName(strip) };
    const told = Object.fromEntries(Object.entries(said).filter(([, word]) => word !== ""));
    return { folder, purpose, tags: [...tags], origin: { ...told, ...played, date } };
  };
  const cards: [string, WrapUp["cards"][string]][] = [];
  for (const strip of some) cards.push([strip.id, await cardOf(strip)]);
  return Object.fromEntries(cards);
}

/** What of each is looked at in the library: what it came from, and what is nearest to it. */
async function answersFor(context: Context, project: Project, finds: readonly Looked[]) {
  const { db } = context;
  const turn = takingTurns();
  const like = await soundsLike(
    db,
    finds.map((find) => find.fingerprint),
  );
  const same = sameAs(finds, like, await savedWhole(db, project));
  const index = await nearestNow(context);
  const near = new Map<string, ReturnType<typeof nearestTo>>();
  for (const find of finds) {
    near.set(find.key, nearestTo(index, find));
    await turn();
  }
  const ids = finds.flatMap(({ key, from }) => [from?.preset ?? [], near.get(key)?.id ?? []].flat());
  const known = await soundsById(db, ids);
  return (find: Looked) => {
    const found = near.get(find.key);
    const nearest = found ? known.get(found.id) : undefined;
    const origin = known.get(find.from?.preset ?? "");
    const canHaveMore = origin && !origin.binned && origin.pack === null && origin.kind === find.content.kind;
    return {
      same: same(find),
      origin: canHaveMore && find.from ? { ...soundOf(origin, find.from.version), newest: origin.version } : null,
      nearest: found && nearest ? { ...soundOf(nearest, nearest.version), distance: found.distance } : null,
    };
  };
}

/** What was found in a project, and how the sounds of each of its strips would be filed, dated `date`. */
export async function lookAt(
  context: Context,
  { project }: Pick<projects.ProjectRecord, "project">,
  date: string,
): Promise<{ readonly found: readonly Found[]; readonly last: WrapUpRecord | null }> {
  const finds = findsIn(project).map((find): Looked => ({ ...find, fingerprint: fingerprint(find.content) }));
  const answers = await answersFor(context, project, finds);
  const spent = readingSpent(await toldOf(context.db, project.id));
  const last = await findWrapUp(context.db, project.id);
  const left = new Set(last?.passedOver);
  const looked = finds.map(({ fingerprint: print, ...find }) => {
    const answer = answers({ ...find, fingerprint: print });
    const standing: FindStanding = standingOf(isItsPlugins(find) ? answer : { ...answer, nearest: null });
    const apart = standing.is === "kept" ? 0 : (answer.nearest?.distance ?? 1);
    const work = { ...spent(find), turned: turnedIn(find.content), apart };
    return { find, fingerprint: print, standing, nearest: answer.nearest, work };
  });
  const proposed = proposedAmong(looked.map(({ find, standing }) => ({ ...find, standing })));
  const cards = await cardsFor(context, project, finds, date);
  const strips = stripsById(project);
  const { id, name, tempo } = project;
  const stripOf = ({ place }: Find): Found["strip"] => {
    const { id: strip, kind, look } = strips.get(place.strip)!;
    return { id: strip, kind, look };
  };
  const found = looked.map(
    (one): Found => ({
      ...one,
      project: { id, name, tempo },
      strip: stripOf(one.find),
      weight: weightOf(one.work),
      isAlone: isAloneIn(project, one.find),
      isProposed: proposed.has(one.find.key) && !left.has(one.fingerprint),
      wasLeft: left.has(one.fingerprint),
      card: cards[one.find.place.strip]!,
    }),
  );
  return { found, last };
}

/** All that a project has to be kept, with how it stands to the library, and how much work is in it. */
export async function lookThrough(context: Context, id: string): Promise<Outcome<WrapUp>> {
  const record = await projects.findProject(context.db, id);
  if (!record || record.draft) return noProject(id);
  const { found, last } = await lookAt(context, record, context.now().toISOString().slice(0, 10));
  return ok({
    revision: record.revision,
    last: last?.at ?? null,
    undo: last?.undo ?? null,
    finds: found.map(({ find: { key, level, place }, project: _, strip: __, card: ___, isAlone: ____, ...told }) => ({
      key,
      level,
      strip: place.strip,
      ...told,
    })),
    cards: Object.fromEntries(found.map(({ find, card }) => [find.place.strip, { ...card, tags: [...card.tags] }])),
  });
}
