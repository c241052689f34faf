"use client";

import { counted, plural } from "@/core/names/count";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { formatNumber } from "@/core/units/format";
import { Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { formatDate } from "../kit/dates";
import { Refused } from "../kit/field";
import { say } from "../kit/say";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { OWN_MATERIAL } from "@/clients/sound-engine";
import { setMaterial } from "./listening";
import { useMediaSheet } from "./materials";
import { MATERIAL_NAMES, useListening } from "./state";

/** "12.4 MB", "40 kB". */
const formatRoom = (bytes: number): string =>
  bytes < 1e5 ? `${formatNumber(bytes / 1e3, 0)} kB` : `${formatNumber(bytes / 1e6, bytes < 1e7 ? 1 : 0)} MB`;

const sum = (sizes: readonly number[]): number => sizes.reduce((a, b) => a + b, 0);
const sounds = (n: number): string => counted(n, "sound");

/** Sounds of one's own: the room they take, what of it nothing uses, and the way to have it back. */
export function MediaSheet() {
  const queries = useQueryClient();
  const room = useQuery({ queryKey: [...KEYS.media, "room"], queryFn: api.mediaRoom, gcTime: 0 });
  const [sure, setSure] = useState<readonly string[]>([]);
  const { refusal, attempt } = useAttempt();
  const items = room.data?.items ?? [];
  const heard = useListening((l) => l.material);
  const isHeard = (hash: string) => heard === OWN_MATERIAL + hash;
  const unused = items.filter((item) => !item.used && !isHeard(item.hash));
  const close = () => useMediaSheet.setState({ open: false });
  const remove = async () => {
    await attempt(async () => {
      // What is heard is let go of first: another plays on in its place.
      if (sure.some(isHeard)) await setMaterial(MATERIAL_NAMES[0].id);
      const { gone } = await api.removeMedia(sure);
      say(`${sounds(gone)} ${plural(gone, "is", "are")} gone for good`);
    });
    setSure([]);
    await queries.invalidateQueries({ queryKey: KEYS.media });
  };
  return (
    <Sheet
      open
      onClose={close}
      title="Sounds of your own"
      aside={items.length > 0 ? `${sounds(items.length)}, ${formatRoom(sum(items.map((item) => item.bytes)))}` : ""}
      className="w-[640px]"
    >
      {room.isPending && <Loading what="Looking for what uses them" />}
      {room.error && <Refused>{room.error.message}</Refused>}
      {room.data && items.length === 0 && (
        <p className="text-soft">There are none yet. Drop a sound on the listening bar, or choose one there.</p>
      )}
      <ul className="max-h-[380px] overflow-auto">
        {items.map((item) => (
          <li
            key={item.hash}
            className="grid min-h-11 grid-cols-[1fr_72px_88px] items-center gap-3 border-rule border-b"
          >
            <span className="grid min-w-0">
              <span className="name truncate" title={item.name}>
                {item.name}
              </span>
              <span className="text-small text-soft">
                {formatNumber(item.seconds, 1)} s · kept {formatDate(item.addedAt)} ·{" "}
                {item.used ? "used" : isHeard(item.hash) ? "heard now" : "nothing uses it"}
              </span>
            </span>
            <span className="num text-right">{formatRoom(item.bytes)}</span>
            {item.used ? (
              <span />
            ) : (
              <Button small aria-label={`Remove ${item.name}`} onClick={() => setSure([item.hash])}>
                Remove…
              </Button>
            )}
          </li>
        ))}
      </ul>
      {refusal}
      {sure.length > 0 && (
        <p role="alert" className="border-alert border-l-[3px] bg-alert-tint px-3 py-2">
          {sure.length === 1
            ? `“${items.find((item) => item.hash === sure[0])?.name ?? ""}” will be gone for good.`
            : `${sounds(sure.length)} that nothing uses will be gone for good.`}{" "}
          No undo brings {plural(sure.length, "it", "them")} back.
        </p>
      )}
      <div className="flex justify-end gap-2">
        {sure.length > 0 ? (
          <>
            <Button className="mr-auto text-alert" onClick={() => void remove()}>
              Yes, remove {plural(sure.length, "it", "them")}
            </Button>
            <Button onClick={() => setSure([])}>Keep</Button>
          </>
        ) : (
          unused.length > 1 && (
            <Button className="mr-auto" onClick={() => setSure(unused.map((item) => item.hash))}>
              Remove all {unused.length} that nothing uses ({formatRoom(sum(unused.map((item) => item.bytes)))})…
            </Button>
          )
        )}
        <Button main onClick={close}>
          Close
        </Button>
      </div>
    </Sheet>
  );
}
