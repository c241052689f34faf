"use client";

import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { Wish } from "@/contracts/archive";
import { inNameOrder } from "@/core/names/order";
import { Button } from "../kit/button";
import { Field, INPUT } from "../kit/field";
import { Segments } from "../kit/segments";
import { Sheet } from "../kit/sheet";
import { folderPath, useFolders } from "../library/use-library";

type Kind = "folder" | "client" | "search" | "project";

const KINDS: readonly { readonly value: Kind; readonly label: string }[] = [
  { value: "folder", label: "a folder" },
  { value: "client", label: "a client" },
  { value: "project", label: "a project" },
  { value: "search", label: "what a search finds" },
];

interface Choosable {
  readonly value: string;
  readonly label: string;
}

function useChoosable(kind: Kind): readonly Choosable[] {
  const folders = useFolders().data?.folders ?? [];
  const projects = useQuery({ queryKey: KEYS.projects, queryFn: () => api.listProjects() }).data?.projects ?? [];
  const clients = [...new Set(projects.map(({ client }) => client))].filter((client) => client !== "");
  switch (kind) {
    case "folder":
      return folders.map((folder) => ({ value: folder.id, label: folderPath(folder, folders) }));
    case "client":
      return clients.toSorted(inNameOrder).map((client) => ({ value: client, label: client }));
    case "project":
      return projects
        .toSorted((a, b) => inNameOrder(a.name, b.name))
        .map(({ id, name }) => ({ value: id, label: name }));
    case "search":
      return [];
  }
}

function wishFor(kind: Kind, value: string): Wish {
  switch (kind) {
    case "folder":
    case "project":
      return { kind, id: value };
    case "client":
      return { kind, name: value };
    case "search":
      return { kind, q: value };
  }
}

interface Props {
  readonly onClose: () => void;
  readonly onChosen: (wish: Wish) => void;
}

/** Which part of the library is to be archived. */
export function PartSheet({ onClose, onChosen }: Props) {
  const [kind, setKind] = useState<Kind>("folder");
  const [typed, setTyped] = useState("");
  const choosable = useChoosable(kind);
  const value =
    kind === "search" ? typed.trim() : (choosable.find((one) => one.value === typed) ?? choosable[0])?.value;
  return (
    <Sheet open onClose={onClose} title="Archive a part" className="w-[520px]">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (value) onChosen(wishFor(kind, value));
        }}
      >
        <Segments
          label="What"
          options={KINDS}
          value={kind}
          onChange={(next) => {
            setKind(next);
            setTyped("");
          }}
        />
        <div className="grid grid-cols-[72px_1fr] items-center gap-x-3">
          <Field label={kind === "search" ? "Search" : "Which"}>
            {kind === "search" ? (
              <input
                className={INPUT}
                value={typed}
                placeholder="as in the field of the library"
                autoComplete="off"
                onChange={({ target }) => setTyped(target.value)}
              />
            ) : (
              <select className={INPUT} value={value ?? ""} onChange={({ target }) => setTyped(target.value)}>
                {choosable.map((one) => (
                  <option key={one.value} value={one.value}>
                    {one.label}
                  </option>
                ))}
              </select>
            )}
          </Field>
        </div>
        <p className="text-soft">With it goes all that it holds and uses, so that it is whole by itself.</p>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button main type="submit" disabled={!value}>
            Archive it
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
