"use client";

import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useEffectEvent, useState } from "react";
import * as api from "@/clients/api";
import * as archive from "@/clients/archive";
import type { CataloguePreview } from "@/contracts/archive";
import { counted } from "@/core/names/count";
import { Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { orSay, say } from "../kit/say";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { refetchLibrary } from "../library/filing";
import { withProgress } from "../library/long-work";

interface Props {
  readonly table: File;
  readonly onClose: () => void;
}

/** What a table that is read back would change of the cards: looked at first, and taken back by one undo. */
export function CatalogueSheet({ table, onClose }: Props) {
  const queries = useQueryClient();
  const [preview, setPreview] = useState<CataloguePreview | null>(null);
  const { refusal, busy, attempt } = useAttempt();
  const look = useEffectEvent(() => void attempt(async () => setPreview(await archive.readCatalogue(table, true))));
  useEffect(() => look(), []);
  const takeBack = async (n: number) => {
    await api.walkFiling("undo", n);
    await refetchLibrary(queries);
    say("Taken back: the catalogue that was read");
  };
  const apply = () =>
    void attempt(async () => {
      const { total, undo } = await withProgress("Changing cards", () => archive.readCatalogue(table, false));
      await refetchLibrary(queries);
      const action = undo === null ? {} : { action: { label: "Undo", onClick: () => orSay(takeBack(undo)) } };
      say(`${counted(total, "card was", "cards were")} changed`, action);
      onClose();
    });
  const total = preview?.total ?? 0;
  return (
    <Sheet open onClose={onClose} title="Read a catalogue" aside={table.name} className="w-[720px]">
      {!preview && !refusal && <Loading what="Reading the table" />}
      {refusal}
      {preview && <Preview preview={preview} />}
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>{total === 0 ? "Close" : "Cancel"}</Button>
        {total > 0 && (
          <Button main disabled={busy} onClick={apply}>
            Change {counted(total, "card")}
          </Button>
        )}
      </div>
    </Sheet>
  );
}

function Preview({ preview: { changes, total, lines, passedOver, problems } }: { readonly preview: CataloguePreview }) {
  return (
    <>
      <p>
        {total === 0
          ? "Nothing in it is otherwise than here"
          : `${total} of ${counted(lines, "line")} would change a card`}
        .{passedOver.length > 0 && <span className="text-soft"> Passed over: {passedOver.join(", ")}.</span>}
      </p>
      {problems.length > 0 && (
        <ul
          role="alert"
          className="grid max-h-[110px] gap-1 overflow-auto border-alert border-l-[3px] bg-alert-tint px-3 py-2 text-small"
        >
          {problems.map((problem) => (
            <li key={problem}>{problem}</li>
          ))}
        </ul>
      )}
      <ul aria-label="What would change" className="max-h-[300px] overflow-auto">
        {changes.map(({ id, called, fields }) => (
          <li key={id} className="grid grid-cols-[200px_1fr] gap-3 border-rule border-b py-1">
            <span className="name truncate">{called}</span>
            <span className="grid">
              {fields.map(({ name, from, to }) => (
                <span key={name} className="min-w-0 break-words text-small">
                  <span className="text-soft">{name}:</span> {from === "" ? "nothing" : from}{" "}
                  <span aria-hidden="true">→</span> <span className="text-edit">{to === "" ? "nothing" : to}</span>
                </span>
              ))}
            </span>
          </li>
        ))}
      </ul>
      {total > changes.length && <p className="text-soft">and {total - changes.length} more</p>}
    </>
  );
}
