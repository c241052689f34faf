import { Archive, Library, type LucideIcon, Plug, Rows3, SlidersHorizontal } from "lucide-react";

/** What may say where a screen goes on. */
interface InHand {
  readonly project: string | null;
  readonly strips: readonly string[];
  readonly bench: string | null;
  /** What was taken in hand last: strips of the project, or what is on the bench. */
  readonly last: "strips" | "bench";
}

/** The strip that an address of the bench is of; a sound of the library is of none. */
function placeIn(bench: string | null): { readonly project: string | null; readonly strip: string } {
  const on = new URLSearchParams(bench?.split("?")[1]);
  return { project: on.get("project"), strip: on.get("strip") ?? "" };
}

/** The bench has what the head of the screen names: the strip that was chosen last, else what was on it last. */
export function benchAddress({ project, strips, bench, last }: InHand): string {
  const on = placeIn(bench);
  const standing = on.project !== null && on.project !== project ? null : bench;
  const [strip] = strips;
  const goesOn = standing !== null && (last === "bench" || (on.project !== null && strips.includes(on.strip)));
  if (project === null || strip === undefined || goesOn) return standing ?? "/bench";
  return `/bench?project=${project}&strip=${strip}`;
}

interface Way {
  readonly id: string;
  readonly title: string;
  readonly keys: readonly string[];
  /** null where there is nowhere to go now. */
  readonly address: (hand: InHand) => string | null;
}

export interface Screen {
  /** As the rail has it. */
  readonly word: string;
  /** All that lies under this address is of the screen. */
  readonly path: string;
  readonly Icon: LucideIcon;
  /** The rail goes the first that leads anywhere. */
  readonly ways: readonly [Way, ...Way[]];
}

/** Every screen, in the order of the rail: rail, keys and "go to" read it, and tests hold it against the pages. */
export const SCREENS: readonly Screen[] = [
  {
    word: "Library",
    path: "/library",
    Icon: Library,
    ways: [{ id: "library", title: "Go to the library", keys: ["Alt+1"], address: () => "/library" }],
  },
  {
    word: "Bench",
    path: "/bench",
    Icon: SlidersHorizontal,
    ways: [{ id: "bench", title: "Go to the bench", keys: ["Alt+2"], address: benchAddress }],
  },
  {
    word: "Projects",
    path: "/projects",
    Icon: Rows3,
    ways: [
      {
        id: "ledger",
        title: "Go to the project in hand",
        keys: ["Alt+3"],
        address: ({ project }) => (project === null ? null : `/projects/${project}`),
      },
      { id: "projects", title: "All projects", keys: ["Alt+4"], address: () => "/projects" },
    ],
  },
  {
    word: "Plugins",
    path: "/plugins",
    Icon: Plug,
    ways: [{ id: "plugins", title: "Go to the plugins", keys: ["Alt+5"], address: () => "/plugins" }],
  },
  {
    word: "Archive",
    path: "/archive",
    Icon: Archive,
    ways: [{ id: "archive", title: "Go to the archive", keys: ["Alt+6"], address: () => "/archive" }],
  },
];

/** Where the rail leads. */
export const addressOf = ({ ways, path }: Screen, hand: InHand): string =>
  ways.map((way) => way.address(hand)).find((address) => address !== null) ?? path;
