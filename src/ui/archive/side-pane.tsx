"use client";

import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useRef, useState } from "react";
import * as api from "@/clients/api";
import { CATALOGUE_ADDRESS } from "@/clients/archive";
import { KEYS } from "@/clients/events";
import type { ArchiveState } from "@/contracts/archive";
import { counted } from "@/core/names/count";
import type { BackupPlan } from "@/core/settings/settings";
import { Button } from "../kit/button";
import { SideHeading } from "../kit/bits";
import { formatMoment } from "../kit/dates";
import { Refused } from "../kit/field";
import { orSay } from "../kit/say";
import { Segments } from "../kit/segments";
import { openSheet } from "../library/filing";
import { useMediaSheet } from "../listening/materials";
import { useSettings } from "../settings/settings";
import { CatalogueSheet } from "./catalogue-sheet";
import { CheckSection } from "./check-section";
import { sizeWords } from "./words";

interface Props {
  readonly state: ArchiveState;
  readonly busy: boolean;
  readonly onBackUp: () => void;
}

/** How the backups go, how much room everything takes, and what is to be put in order. */
export const SidePane = (props: Props) => (
  <div className="relative grid h-full content-start gap-5 overflow-auto bg-card px-[18px] py-[16px]">
    <Backups {...props} />
    <Room {...props} />
    <CheckSection />
    <Catalogue />
    <Order />
  </div>
);

const EVERY: readonly { readonly value: BackupPlan["every"]; readonly label: string }[] = [
  { value: "day", label: "every day" },
  { value: "week", label: "every week" },
  { value: "never", label: "never" },
];

const KEPT: readonly { readonly of: "days" | "weeks" | "months"; readonly least: number; readonly most: number }[] = [
  { of: "days", least: 1, most: 365 },
  { of: "weeks", least: 0, most: 520 },
  { of: "months", least: 0, most: 600 },
];

function Backups({ state: { backups }, busy, onBackUp }: Props) {
  const { settings, change } = useSettings();
  const plan = settings.backups;
  const { last } = backups;
  const set = (more: Partial<BackupPlan>) => orSay(change((now) => ({ ...now, backups: { ...now.backups, ...more } })));
  return (
    <section className="grid gap-3">
      <SideHeading>Backups</SideHeading>
      {last?.failed != null ? (
        <Refused>
          The backup of {formatMoment(last.at)} failed: {last.failed}
        </Refused>
      ) : (
        <p>{last ? `The last one, of ${formatMoment(last.at)}, is whole.` : "None was made yet."}</p>
      )}
      <Segments label="Back up" options={EVERY} value={plan.every} onChange={(every) => set({ every })} />
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <span className="w-full text-soft">Kept are the last of each of</span>
        {KEPT.map(({ of, least, most }) => (
          <label key={of} className="flex items-center gap-1">
            <input
              type="number"
              min={least}
              max={most}
              value={plan[of]}
              className="num h-6 w-[52px] rounded-card border border-bound bg-ground px-1 text-right"
              onChange={({ target }) => {
                const wanted = Math.round(target.valueAsNumber);
                if (wanted >= least && wanted <= most) set({ [of]: wanted });
              }}
            />
            {of}
          </label>
        ))}
      </div>
      <span>
        <Button small disabled={busy} onClick={onBackUp}>
          Back up now
        </Button>
      </span>
    </section>
  );
}

const Line = ({
  what,
  bytes,
  children,
}: {
  readonly what: string;
  readonly bytes: number;
  readonly children?: ReactNode;
}) => (
  <>
    <span className="min-w-0">
      {what}
      {children}
    </span>
    <span className="num text-right">{bytes === 0 ? "none" : sizeWords(bytes)}</span>
  </>
);

function Room({ state: { room, folder } }: Props) {
  const { unusedVersions } = room;
  return (
    <section className="grid gap-3">
      <SideHeading>Room</SideHeading>
      <div className="grid grid-cols-[1fr_auto] gap-x-3 gap-y-1">
        <Line what="The library" bytes={room.library} />
        <Line what="– what was ever done" bytes={room.history} />
        <Line what="– sounds of your own" bytes={room.media}>
          {room.media > 0 && (
            <>
              {" "}
              <Button small plain onClick={() => useMediaSheet.setState({ open: true })}>
                look
              </Button>
            </>
          )}
        </Line>
        <Line what="Archives, backups and copies" bytes={room.files} />
      </div>
      {unusedVersions.count > 0 && (
        <p className="text-small text-soft">
          {counted(unusedVersions.count, "earlier version is", "earlier versions are")} used by no project and{" "}
          {unusedVersions.count === 1 ? "takes" : "take"} {sizeWords(unusedVersions.bytes)}; they stay.
        </p>
      )}
      <p className="break-all text-small text-soft">All of it lies in {folder}.</p>
    </section>
  );
}

/** The cards as a table, out and back in. */
function Catalogue() {
  const chooser = useRef<HTMLInputElement>(null);
  const [table, setTable] = useState<File | null>(null);
  return (
    <section className="grid gap-3">
      <SideHeading>Catalogue</SideHeading>
      <p className="text-soft">
        All cards as a table (CSV). Names, folders, tags, purposes, ratings and notes are read back.
      </p>
      <span className="flex flex-wrap gap-2">
        <Button small onClick={() => window.location.assign(CATALOGUE_ADDRESS)}>
          Save the table
        </Button>
        <Button small onClick={() => chooser.current?.click()}>
          Read a table back…
        </Button>
      </span>
      <input
        ref={chooser}
        type="file"
        accept=".csv,.tsv,.txt"
        aria-label="A table to read back"
        className="sr-only"
        tabIndex={-1}
        onChange={({ target }) => {
          setTable(target.files?.[0] ?? null);
          target.value = "";
        }}
      />
      {table && <CatalogueSheet table={table} onClose={() => setTable(null)} />}
    </section>
  );
}

function Order() {
  const bin = useQuery({ queryKey: KEYS.bin, queryFn: api.listBin });
  const binned = bin.data?.items.length ?? 0;
  return (
    <section className="grid gap-3">
      <SideHeading>In order</SideHeading>
      <div className="flex flex-wrap gap-2">
        <Button small onClick={() => openSheet({ sheet: "bin" })}>
          {binned === 0 ? "The bin is empty" : `Bin: ${counted(binned, "sound")}`}
        </Button>
        <Button small onClick={() => openSheet({ sheet: "nearCopies", chosen: [] })}>
          Near copies
        </Button>
        <Button small onClick={() => openSheet({ sheet: "naming" })}>
          Names to mend
        </Button>
      </div>
    </section>
  );
}
