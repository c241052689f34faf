"use client";

import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import * as archive from "@/clients/archive";
import type { CheckedLibrary, Fault } from "@/contracts/archive";
import { counted } from "@/core/names/count";
import { Button } from "../kit/button";
import { SideHeading } from "../kit/bits";
import { formatMoment } from "../kit/dates";
import { say } from "../kit/say";
import { useAttempt } from "../kit/use-attempt";
import { Progress, shareOf } from "../kit/progress";
import { useJob } from "./use-job";

const MEND_WORDS = { derive: "can be made anew", backup: "can be taken from a backup" } as const;

const told = ({ of, name, id }: Fault): string =>
  name !== "" ? name : id !== "" ? id : of === "index" ? "The index" : "";

/** Whether everything is as it should be: looked through on demand, and mended where it can be. */
export function CheckSection() {
  const queries = useQueryClient();
  const { job, run, stop } = useJob();
  const { refusal, busy, attempt } = useAttempt();
  const [checked, setChecked] = useState<CheckedLibrary | null>(null);
  const [left, setLeft] = useState<readonly string[]>([]);
  const look = async () => {
    const result = await run(archive.beginCheck);
    if (result.kind === "checked") setChecked(result.checked);
  };
  const check = () =>
    void attempt(async () => {
      setLeft([]);
      await look();
    });
  const mendable = checked?.faults.filter(({ mend }) => mend !== null) ?? [];
  const mend = () =>
    void attempt(async () => {
      const mended = await archive.mend(mendable);
      say(`${counted(mended.mended, "fault is", "faults are")} mended`);
      await look();
      setLeft(mended.left);
      await queries.invalidateQueries();
    });
  return (
    <section className="grid gap-3">
      <SideHeading>Whether all is whole</SideHeading>
      {checked && <Found checked={checked} />}
      {left.length > 0 && (
        <ul className="grid gap-1 text-small">
          {left.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      )}
      {job && <Progress words="Checking everything" share={shareOf(job)} onStop={stop} />}
      {refusal}
      <span className="flex flex-wrap gap-2">
        <Button small disabled={busy} onClick={check}>
          Check everything
        </Button>
        {mendable.length > 0 && (
          <Button small disabled={busy} onClick={mend}>
            Mend {mendable.length} of {checked?.faults.length}
          </Button>
        )}
      </span>
    </section>
  );
}

function Found({ checked: { at, faults, counts } }: { readonly checked: CheckedLibrary }) {
  const { sounds, versions, projects, media } = counts;
  return (
    <>
      <p className={faults.length > 0 ? "text-alert" : ""}>
        {faults.length === 0
          ? "All is as it should be"
          : counted(faults.length, "fault was found", "faults were found")}
        , {formatMoment(at)}.
      </p>
      <p className="text-small text-soft">
        {counted(sounds, "sound")} in {counted(versions, "version")}, {counted(projects, "project")},{" "}
        {counted(media, "sound file")}, with all that leads from one to another.
      </p>
      {faults.length > 0 && (
        <ul className="grid max-h-[220px] gap-1 overflow-auto">
          {faults.map((fault) => (
            <li key={`${fault.of} ${fault.id} ${fault.what}`} className="grid border-rule border-b pb-1">
              <span className="name truncate">{told(fault)}</span>
              <span className="text-small">{fault.what}</span>
              <span className="text-small text-soft">
                {fault.mend ? MEND_WORDS[fault.mend] : "stays as it is; only by hand"}
              </span>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
