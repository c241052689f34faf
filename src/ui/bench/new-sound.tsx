"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Plus } from "lucide-react";
import { useRouter } from "next/navigation";
import * as api from "@/clients/api";
import { MODELS } from "@/core/processors/models";
import { useActions } from "../actions/actions";
import { Button } from "../kit/button";
import { formatDay } from "../kit/dates";
import { Menu } from "../kit/menu";
import { orSay } from "../kit/say";
import { bring } from "../projects/sending";

const INSTRUMENTS = MODELS.filter((model) => model.family === "instrument");

/** Begins a sound from nothing, beside any that stands unsaved. */
function useBegin(): (instrument?: string) => void {
  const router = useRouter();
  const queries = useQueryClient();
  const begin = async (instrument?: string) => {
    const body = await api.openDraft({ preset: null, fresh: true, ...(instrument ? { instrument } : {}) });
    bring(queries, body);
    router.push(`/bench?draft=${body.project.id}`);
  };
  return (instrument) => orSay(begin(instrument));
}

/** A new sound, and the ways back to those that were begun and not saved. */
export function NewSound({ draft }: { readonly draft: string | null }) {
  const router = useRouter();
  const begin = useBegin();
  const { data: drafts = [], refetch } = useQuery({
    queryKey: ["drafts"],
    enabled: false,
    queryFn: async () => (await api.listDrafts()).drafts,
  });
  const now = new Date();
  useActions([{ id: "new-sound", title: "Start a new sound", group: "Bench", keys: ["Shift+N"], run: () => begin() }]);
  return (
    <Menu
      align="end"
      onOpen={() => void refetch()}
      trigger={
        <Button>
          <Plus size={16} aria-hidden="true" />
          New
        </Button>
      }
      groups={[
        { id: "chain", items: [{ id: "chain", label: "New chain", beside: "Shift N", onChoose: () => begin() }] },
        {
          id: "instruments",
          head: "New instrument",
          items: INSTRUMENTS.map(({ id, name }) => ({ id, label: name, onChoose: () => begin(id) })),
        },
        {
          id: "drafts",
          head: "Begun and not saved",
          items: drafts
            .filter(({ id }) => id !== draft)
            .map(({ id, changedAt, plugins }) => ({
              id,
              label: plugins.join(", "),
              beside: formatDay(changedAt, now),
              onChoose: () => router.push(`/bench?draft=${id}`),
            })),
        },
      ]}
    />
  );
}
