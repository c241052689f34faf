import { eqVsNative, firstLoad, knobToSound, loopRender, openBrowser } from "./browser";
import { audit } from "./audit";
import { archives, restore } from "./archive";
import { wrapUps } from "./wrap-up";
import { chainCost } from "./chain";
import { clumsy } from "./clumsy";
import { type Figure, print } from "./figure";
import { comparisons, histories } from "./history";
import { importMany } from "./import";
import { kills } from "./kills";
import { laws } from "./laws";
import { largeLedger } from "./ledger";
import { largeLibrary } from "./library";
import { openLibrary } from "./open";
import { agreement, silentTail } from "./sound";
import { edits, plans, strips } from "./projects";
import { save } from "./storage";
import { waits } from "./waits";

type Measure<T> = (browser: Awaited<ReturnType<typeof openBrowser>>) => Promise<T>;

const allInBrowser = (measure: Measure<readonly Figure[]>) => async () => {
  const browser = await openBrowser();
  const figures = await measure(browser);
  await browser.close();
  return figures;
};

const inBrowser = (measure: Measure<Figure>) => allInBrowser(async (browser) => [await measure(browser)]);

/** Names as they are asked for, and what measures them; what is measured together is printed together. */
const ROWS: readonly [names: readonly string[], measure: () => Promise<readonly Figure[]>][] = [
  [["eq-vs-native"], inBrowser(eqVsNative)],
  [["chain-vs-eq", "chain-realtime"], () => Promise.resolve(chainCost())],
  [["silent-tail"], () => Promise.resolve([silentTail()])],
  [["knob-to-sound"], inBrowser(knobToSound)],
  [["loop-render"], inBrowser(loopRender)],
  [["loudness-agrees", "peak-agrees"], () => Promise.resolve(agreement())],
  [["save"], async () => [await save()]],
  [
    [
      "search-100k",
      "search-100k-ms",
      "search-overlap",
      "facets-100k",
      "page-100k",
      "memory-100k",
      "tree-1k",
      "bulk-5k",
      "bulk-5k-ms",
      "bulk-5k-undo-ms",
    ],
    largeLibrary,
  ],
  [["near-100k", "worst-wait"], waits],
  [["plan-200", "plan-growth"], () => Promise.resolve(plans())],
  [["edit-200"], async () => [await edits()]],
  [["strips-100k", "strips-100k-ms"], strips],
  [["history-10k", "history-10k-page", "history-10k-size"], histories],
  [["compare-200"], async () => [await comparisons()]],
  [["laws"], () => Promise.resolve([laws()])],
  [["kills"], async () => [await kills()]],
  [["import"], async () => [await importMany()]],
  [["archive-write", "archive-read"], archives],
  [["restore-100k", "restore-100k-mb", "restore-100k-silence"], restore],
  [["wrap-up"], async () => [await wrapUps()]],
  [["open", "scroll-100k-late", "pattern-5k"], allInBrowser(openLibrary)],
  [["open-200", "apply-200"], allInBrowser(largeLedger)],
  [["first-load"], inBrowser(firstLoad)],
];

/** What takes hours is measured only where it is asked for by name. */
const LONG: typeof ROWS = [
  [["clumsy"], inBrowser(clumsy)],
  [["audit"], () => Promise.resolve(audit())],
];

const at = process.argv.indexOf("--only");
const only = at < 0 ? undefined : process.argv[at + 1];
for (const [names, measure] of only === undefined ? ROWS : [...ROWS, ...LONG]) {
  if (only !== undefined && !names.includes(only)) continue;
  for (const figure of await measure()) print(figure);
}
