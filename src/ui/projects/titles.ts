import type { ProjectsShown } from "./use-projects";

/** What stands over a drawer. */
export function drawerTitle({ drawer }: Pick<ProjectsShown, "drawer">): string {
  switch (drawer.of) {
    case "all":
      return "Projects";
    case "starters":
      return "Starters";
    case "bin":
      return "Bin";
    case "client": {
      const client = drawer.client === "" ? "No client" : drawer.client;
      return drawer.year === null ? client : `${client}, ${drawer.year}`;
    }
  }
}

/** What is shown, as it is spoken of: "all projects", "Copper Heron, “salt”". */
export function calledOf({ drawer, words }: Pick<ProjectsShown, "drawer" | "words">): string {
  const what = drawer.of === "all" ? "all projects" : drawerTitle({ drawer });
  return words.trim() === "" ? what : `${what}, “${words.trim()}”`;
}
