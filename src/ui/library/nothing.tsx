"use client";

import { useRouter } from "next/navigation";
import type { PresetPage } from "@/contracts/library";
import { OWN } from "@/core/packs/pack";
import { Empty, Loading } from "../kit/bits";
import { Button } from "../kit/button";

/** Where all that is listed came with a pack, what to do first. */
export function NothingOwn({ page, narrowed }: { readonly page: PresetPage | undefined; readonly narrowed: boolean }) {
  const router = useRouter();
  if (narrowed || !page || page.total === 0 || page.facets.pack?.some(({ value }) => value === OWN)) return null;
  return (
    <div role="status" className="flex flex-none items-center gap-3 border-edge border-b px-[14px] py-2">
      <p className="flex-1">
        Nothing of your own yet. What is listed comes with Diathesis: use it, or build a sound and save it.
      </p>
      <Button main onClick={() => router.push("/bench?new=1")}>
        Start a new sound
      </Button>
    </div>
  );
}

/** What of the search was read otherwise, or not at all. */
export function Said({ page }: { readonly page: PresetPage | undefined }) {
  const lines = [
    ...(page?.unclear ?? []),
    ...(page?.corrected ?? []).map(({ typed, read }) => `Nothing begins with “${typed}”; read as “${read}”.`),
  ];
  if (lines.length === 0) return null;
  return (
    <ul role="status" className="flex-none border-edit border-l-[3px] bg-edit-tint px-3 py-1 text-small">
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  );
}

interface NothingProps {
  readonly loading: boolean;
  readonly failed: string | undefined;
  readonly narrowed: boolean;
  readonly onAll: () => void;
}

/** In place of a list in which nothing stands: why, and what to do about it. */
export function NothingFound({ loading, failed, narrowed, onAll }: NothingProps) {
  const router = useRouter();
  if (loading)
    return (
      <div className="flex-1">
        <Loading what="Opening the library" />
      </div>
    );
  if (failed)
    return (
      <Empty title="The library could not be read" className="flex-1">
        <p role="alert">{failed}</p>
      </Empty>
    );
  if (narrowed)
    return (
      <Empty title="No sound matches" className="flex-1">
        <p>
          Every word must begin a word of the name, a tag, the purpose, a plugin inside or the origin. A field narrows
          it: artist:heron, tag:warm, rating:4+.
        </p>
        <Button onClick={onAll}>Show all sounds</Button>
      </Empty>
    );
  return (
    <Empty title="No sounds yet" className="flex-1">
      <p>Build one on the bench and save it; it is then found here, by name or by shape.</p>
      <Button main onClick={() => router.push("/bench?new=1")}>
        Start a new sound
      </Button>
    </Empty>
  );
}
