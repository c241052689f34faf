"use client";

import { ArrowLeftRight } from "lucide-react";
import { useRouter, useSearchParams } from "next/navigation";
import { useMemo, useState } from "react";
import { compareProjects } from "@/core/history/beside";
import { partnersBetween } from "@/core/history/partners";
import { counted } from "@/core/names/count";
import type { Project } from "@/core/projects/project";
import { useActions } from "../actions/actions";
import { Empty, Key, Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { Toggle } from "../kit/toggle";
import { useRows } from "../ledger/use-rows";
import { planAddress } from "../plan/address";
import { useTakeProject } from "../projects/in-hand";
import { useOpenProject } from "../projects/open-project";
import { LinesPane } from "./lines-pane";
import { indexAfter, thenRows } from "./then-rows";
import { ThenTable, type ThenWords } from "./then-table";

/** Two projects beside each other, strip by strip: the one that is named first, and what the other has otherwise. */
export function TwoProjects({ id }: { readonly id: string }) {
  const other = useSearchParams().get("with") ?? "";
  const [left, right] = [useOpenProject(id), useOpenProject(other)];
  useTakeProject(id);
  const error = left.error ?? right.error;
  if (error)
    return (
      <Empty page title="These projects cannot be compared">
        <p role="alert">{error.message}</p>
      </Empty>
    );
  if (!left.body || !right.body) return <Loading what="Opening both" />;
  return <OpenTwo left={left.body.project} right={right.body.project} />;
}

const wordsFor = ({ name }: Project): ThenWords => ({
  onlyHere: "only here",
  onlyThere: `only in ${name}`,
  moved: "stands elsewhere",
  called: (called) => `${called} there`,
});

function OpenTwo({ left, right }: { readonly left: Project; readonly right: Project }) {
  const router = useRouter();
  const [onlyDifferent, setOnlyDifferent] = useState(false);
  const partners = useMemo(() => partnersBetween(left, right), [left, right]);
  const compared = useMemo(() => compareProjects(left, right, partners), [left, right, partners]);
  const rows = useMemo(() => thenRows(left, compared, onlyDifferent), [left, compared, onlyDifferent]);
  const strips = useMemo(() => rows.map(({ strip }) => strip), [rows]);
  const hand = useRows(strips);
  const row = rows.find(({ strip }) => strip.id === hand.cursor?.id) ?? null;
  const words = wordsFor(right);
  const there = right.strips.filter(({ id }) => {
    const partner = partners.get(id);
    return hand.chosen.includes(id) || (partner !== undefined && hand.chosen.includes(partner));
  });
  const leave = () => router.push("/projects");
  const turn = () => router.replace(`/projects/${right.id}/beside?with=${left.id}`);
  const take = () => {
    if (there.length === 0) return;
    const here = there.flatMap(({ id }) => partners.get(id) ?? []);
    const brought = { project: right.id, strips: there.map(({ id }) => id) };
    router.push(planAddress(left.id, brought, { strips: here }));
  };
  const group = "Two projects";
  useActions([
    { id: "leave", title: "Back to the projects", group, keys: ["Escape"], run: leave },
    { id: "turn", title: "The other way round", group, keys: ["T"], run: turn },
    {
      id: "take",
      title: `Take the chosen strips from “${right.name}”…`,
      group,
      keys: ["Shift+Enter"],
      enabled: there.length > 0,
      run: take,
    },
  ]);
  const differ = compared.strips.length;
  return (
    <section aria-label={`${left.name} beside ${right.name}`} className="flex h-full min-w-0 flex-col">
      <header className="flex flex-none items-center gap-3 px-[14px] pt-[14px] pb-2">
        <h1 className="h1 flex min-w-0 gap-[6px]">
          <span className="truncate">{left.name}</span>
          <span className="flex-none text-soft">beside</span>
          <span className="truncate">{right.name}</span>
        </h1>
        <span className="ml-auto flex flex-none gap-2">
          <Button onClick={leave}>Back to the projects</Button>
          <Button aria-label="The other way round" title="The other way round (T)" onClick={turn}>
            <ArrowLeftRight size={16} aria-hidden="true" />
          </Button>
          <Button main disabled={there.length === 0} onClick={take}>
            Take {there.length === 0 ? "strips" : counted(there.length, "strip")}…
          </Button>
        </span>
      </header>
      <div className="flex flex-none flex-wrap items-center gap-x-4 gap-y-1 px-[14px] pb-3 text-soft">
        <span>{differ === 0 ? "No strip differs" : `${counted(differ, "strip")} not alike`}</span>
        {compared.details.map(({ what, from, to }) => (
          <span key={what} className="max-w-[260px] truncate" title={`${what}: ${from} → ${to}`}>
            {what} {from} → {to}
          </span>
        ))}
        <span className="ml-auto">
          <Toggle label="Only what differs" on={onlyDifferent} onChange={setOnlyDifferent} />
        </span>
      </div>
      <ThenTable
        project={left}
        words={words}
        rows={rows}
        chosen={hand.chosen}
        cursor={hand.cursor?.id ?? null}
        onChoose={hand.choose}
        onMove={(by, how) => hand.moveTo(indexAfter(by, hand.at, rows.length), how)}
      />
      {row && (
        <LinesPane
          strip={row.strip}
          beside={row.beside}
          tempo={left.tempo}
          names={{ then: left.name, other: right.name }}
        />
      )}
      <p className="flex h-8 flex-none items-center gap-[6px] overflow-hidden whitespace-nowrap border-edge border-t px-[14px] text-small text-soft">
        <Key>↑ ↓</Key> strips <Key>X</Key> A and B <Key>T</Key> the other way round <Key>Shift Enter</Key> take from “
        {right.name}”
      </p>
    </section>
  );
}
