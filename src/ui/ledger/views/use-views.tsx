"use client";

import { Eye } from "lucide-react";
import { type ReactNode, useState } from "react";
import { STRIP_KINDS } from "@/core/documents/strip-kinds";
import type { Project } from "@/core/projects/project";
import { ORDER_WORDS, hiddenWords, kindsWords } from "@/core/projects/shown-rows";
import { ROW_ORDERS } from "@/core/projects/schema";
import { type View, findView, viewsOf } from "@/core/projects/views";
import { type Action, useActions } from "../../actions/actions";
import { Menu, type MenuGroup } from "../../kit/menu";
import { mintKey } from "../../kit/mint";
import { say } from "../../kit/say";
import type { ProjectEditing } from "../../projects/editing";
import { FOOT_BUTTON } from "./foot-button";
import { type Shown, keptOf } from "./use-shown";
import { ViewSheet, keepSteps } from "./view-sheet";

interface Given {
  readonly project: Project;
  readonly editing: ProjectEditing;
  readonly shown: Shown;
  readonly chosen: readonly string[];
}

interface Views {
  /** For the menu of rows. */
  readonly group: MenuGroup;
  /** All that can be done with what is shown, under a button. */
  readonly menu: ReactNode;
  readonly sheet: ReactNode;
}

/** "Only Drum", "Without returns"; else a plain word. */
function nameFor(project: Project, { rows }: Shown): string {
  const [words = "view"] = hiddenWords(project, rows);
  return `${words[0]!.toUpperCase()}${words.slice(1)}`;
}

/** What is done with views that are kept. */
function useKeeping({ editing, shown }: Given) {
  const { view } = shown;
  const removeView = async (gone: View) => {
    const made = await editing.commit(`Remove the view “${gone.name}”`, (now) => {
      const from = findView(now, gone.id);
      return from ? [{ id: mintKey(), kind: "setView", view: gone.id, from, to: null }] : [];
    });
    if (made !== null)
      say(`Removed the view “${gone.name}”`, {
        action: { label: "Undo", onClick: () => void editing.undo(made) },
      });
  };
  const keepChanges = async () => {
    if (!view) return;
    const made = await editing.commit(`What the view “${view.name}” shows`, (now) => {
      const stands = findView(now, view.id);
      return stands ? keepSteps(now, { ...stands, ...keptOf(shown) }) : [];
    });
    if (made !== null)
      say(`“${view.name}” shows this now`, { action: { label: "Undo", onClick: () => void editing.undo(made) } });
  };
  return { removeView: () => view && void removeView(view), keepChanges: () => void keepChanges() };
}

/** What the ledger shows, by keys, by the field of actions and by menus; kept under names. */
export function useViews(given: Given): Views {
  const { project, editing, shown, chosen } = given;
  const [sheet, open] = useState<"keep" | "edit" | null>(null);
  const { removeView, keepChanges } = useKeeping(given);
  const views = viewsOf(project);
  const group = "What is shown";
  const has = chosen.length > 0;
  const own: readonly Action[] = [
    {
      id: "hide-strips",
      title: "Hide the chosen strips",
      group,
      keys: ["H"],
      enabled: has,
      run: () => shown.hide(chosen),
    },
    {
      id: "only-strips",
      title: "Show only the chosen strips",
      group,
      keys: ["Shift+H"],
      enabled: has,
      run: () => shown.showOnly(chosen),
    },
    { id: "show-all", title: "Show all strips and columns", group, keys: ["0"], run: shown.showAll },
    { id: "find-strips", title: "Find strips of this project", group, keys: ["F"], run: () => shown.look("") },
    { id: "keep-view", title: "Keep what is shown as a view…", group, keys: ["V"], run: () => open("keep") },
  ];
  const { view, isChanged } = shown;
  useActions([
    ...own,
    ...views.map((one) => ({
      id: `view-${one.id}`,
      title: `Show the view “${one.name}”`,
      group,
      keys: one.digit === null ? [] : [String(one.digit)],
      run: () => shown.take(one),
    })),
    {
      id: "view-changes",
      title: view ? `Keep what was changed in the view “${view.name}”` : "Keep what was changed in the view",
      group,
      enabled: isChanged,
      run: keepChanges,
    },
    {
      id: "view-edit",
      title: view ? `Name and key of the view “${view.name}”…` : "Name and key of the view…",
      group,
      enabled: view !== null,
      run: () => open("edit"),
    },
    {
      id: "view-remove",
      title: view ? `Remove the view “${view.name}”` : "Remove the view",
      group,
      enabled: view !== null,
      run: removeView,
    },
  ]);
  const item = (id: string) => {
    const { title, keys = [], enabled = true, run } = own.find((action) => action.id === id)!;
    return { id, label: title, beside: keys[0]?.replace("+", " "), disabled: !enabled, onChoose: run };
  };
  const groups: readonly MenuGroup[] = [
    {
      id: "views",
      head: "Views",
      items: views.map((one) => ({
        id: one.id,
        label: one.name,
        beside: one.digit ?? (one.id === view?.id ? "shown" : ""),
        onChoose: () => shown.take(one),
      })),
    },
    {
      id: "keep",
      items: [
        item("keep-view"),
        ...(view && isChanged
          ? [{ id: "changes", label: `Keep the changes in “${view.name}”`, onChoose: keepChanges }]
          : []),
        ...(view
          ? [
              { id: "edit", label: `Name and key of “${view.name}”…`, onChoose: () => open("edit") },
              { id: "remove", label: `Remove “${view.name}”`, onChoose: removeView },
            ]
          : []),
      ],
    },
    { id: "rows", items: ["hide-strips", "only-strips", "show-all", "find-strips"].map(item) },
    {
      id: "kinds",
      head: "Kinds of strips",
      items: STRIP_KINDS.filter((kind) => project.strips.some((strip) => strip.kind === kind)).map((kind) => {
        const words = kindsWords(kind);
        return {
          id: kind,
          label: `${words[0]!.toUpperCase()}${words.slice(1)}`,
          beside: shown.rows.kinds.includes(kind) ? "" : "shown",
          onChoose: () => shown.turnKind(kind),
        };
      }),
    },
    {
      id: "order",
      head: "Rows stand",
      items: ROW_ORDERS.map((order) => ({
        id: order,
        label: `${ORDER_WORDS[order][0]!.toUpperCase()}${ORDER_WORDS[order].slice(1)}`,
        beside: order === shown.rows.order ? "now" : "",
        onChoose: () => shown.stand(order),
      })),
    },
  ];
  return {
    group: { id: "shown", items: ["hide-strips", "only-strips"].map(item) },
    menu: (
      <Menu
        align="end"
        groups={groups}
        trigger={
          <button type="button" title="Which strips are shown, in which order; views" className={FOOT_BUTTON}>
            <Eye size={14} aria-hidden="true" />
            What is shown
          </button>
        }
      />
    ),
    sheet: sheet && (
      <ViewSheet
        project={project}
        editing={editing}
        kept={keptOf(shown)}
        name={nameFor(project, shown)}
        {...(sheet === "edit" && view ? { view } : {})}
        onKept={(made) => sheet === "keep" && shown.take(made)}
        onClose={() => open(null)}
      />
    ),
  };
}
