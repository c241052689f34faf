"use client";

import { useState } from "react";
import { counted, plural } from "@/core/names/count";
import { type Project, findStrip } from "@/core/projects/project";
import * as arrange from "@/core/recall/arrange";
import { PART } from "@/core/strips/parts";
import { stripName } from "@/core/strips/strip";
import { Button } from "../kit/button";
import { INPUT, Refused } from "../kit/field";
import { mintKey } from "../kit/mint";
import { Sheet } from "../kit/sheet";
import { type Turning, orRefuse } from "./use-turning";

interface Props {
  readonly project: Project;
  readonly strips: readonly string[];
  readonly turning: Turning;
  readonly onClose: () => void;
}

const idOf = ({ of, part }: Pick<arrange.Bereft, "of" | "part">): string => `${part} ${of}`;

/** What becomes of a part that leads nowhere any more. */
const NONE: Readonly<Partial<Record<arrange.Bereft["part"], string>>> = {
  routing: "nowhere",
  sends: "no more: these sends are taken out",
  inserts: "the sound itself",
  source: "nothing",
};

/** Where what leads to strips goes that are to be removed: asked before they are. */
export function RemoveSheet({ project, strips, turning, onClose }: Props) {
  const all = arrange.findBereft(project, strips);
  const bereft = all.filter(({ part }) => part !== "look");
  const first = arrange.firstHeirs(all);
  const [answers, setAnswers] = useState<Readonly<Record<string, string | null>>>({});
  const heirs: arrange.Heirs = (of, part) => {
    const answer = answers[idOf({ of, part })];
    return answer === undefined ? first(of, part) : answer;
  };
  const nameOf = (id: string) => stripName(findStrip(project, id) ?? { look: { name: "a strip" } });
  const [only] = strips;
  const what = strips.length === 1 && only ? nameOf(only) : counted(strips.length, "strip");
  const planned = arrange.removeStrips(project, strips, heirs, mintKey);
  const remove = () => {
    turning.change(
      `Remove ${what}`,
      orRefuse((now) => arrange.removeStrips(now, strips, heirs, mintKey)),
    );
    onClose();
  };
  return (
    <Sheet open onClose={onClose} title={`Remove ${what}`} className="w-[560px]">
      <p className="text-soft">Others lead there. Where are they to go?</p>
      <ul className="grid max-h-[46vh] gap-3 overflow-auto">
        {bereft.map((one) => (
          <li key={idOf(one)} className="grid gap-1">
            <span>
              {one.strips.map(stripName).join(", ")}{" "}
              <span className="text-soft">
                {leadsWords(one)} {nameOf(one.of)}
              </span>
            </span>
            <select
              aria-label={`${PART[one.part].title} to ${nameOf(one.of)}`}
              className={INPUT}
              value={heirs(one.of, one.part) ?? ""}
              onChange={({ target: { value } }) =>
                setAnswers((now) => ({ ...now, [idOf(one)]: value === "" ? null : value }))
              }
            >
              <option value="">{NONE[one.part]}</option>
              {one.heirs.map((heir) => (
                <option key={heir.id} value={heir.id}>
                  {stripName(heir)}
                </option>
              ))}
            </select>
          </li>
        ))}
      </ul>
      {!planned.ok && <Refused>{planned.error}</Refused>}
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Cancel</Button>
        <Button main autoFocus disabled={!planned.ok} onClick={remove}>
          Remove {what}
        </Button>
      </div>
    </Sheet>
  );
}

/** "goes to", "send to", behind so many names. */
function leadsWords({ part, strips }: arrange.Bereft): string {
  const n = strips.length;
  if (part === "sends") return plural(n, "sends to", "send to");
  if (part === "routing") return plural(n, "goes to", "go to");
  return plural(n, "hears", "hear");
}
