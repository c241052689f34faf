"use client";

import { useState } from "react";
import type { BringRequest, IncomingRecord } from "@/contracts/archive";
import { type Choice, type Choices, type ItemStanding, STANDINGS_IN_ORDER, choicesOf } from "@/core/archive/comparison";
import { STANDING_WORDS } from "./words";

/** What says of a thing which one it is, and how it stands. */
interface Thing {
  readonly key: string;
  readonly standing: ItemStanding;
}

/** Of a group: how many there are, and what is done with each that has no choice of its own. */
export interface Group {
  readonly standing: ItemStanding;
  readonly words: string;
  readonly about: string;
  readonly count: number;
  readonly choices: readonly Choice[];
  readonly choice: Choice;
}

interface Own {
  readonly standing: ItemStanding;
  readonly choice: Choice;
}

const chosenIn = (standing: ItemStanding, groups: Choices["groups"]): Choice =>
  groups[standing] ?? choicesOf({ standing })[0]!;

const isTaken = (choice: Choice): boolean => choice !== "leave";

/** How many things come in: of each group all that have no choice of their own, and those that were chosen by themselves. */
function countTaken(groups: readonly Group[], own: readonly Own[]): number {
  return groups.reduce((sum, { standing, count, choice }) => {
    const ofGroup = own.filter((one) => one.standing === standing);
    const rest = isTaken(choice) ? count - ofGroup.length : 0;
    return sum + rest + ofGroup.filter((one) => isTaken(one.choice)).length;
  }, 0);
}

/** What is done with all that comes in: by groups of things that stand alike, and one by one. */
export function useChoices(head: IncomingRecord["head"]) {
  const [ofGroups, setOfGroups] = useState<Choices["groups"]>({});
  const [own, setOwn] = useState<ReadonlyMap<string, Own>>(new Map());
  const groups = STANDINGS_IN_ORDER.flatMap((standing): readonly Group[] => {
    const count = head?.counts[standing] ?? 0;
    const choices = choicesOf({ standing });
    return count === 0
      ? []
      : [{ ...STANDING_WORDS[standing], standing, count, choices, choice: chosenIn(standing, ofGroups) }];
  });
  const request: BringRequest = {
    groups: { ...ofGroups },
    items: Object.fromEntries([...own].map(([key, { choice }]) => [key, choice])),
  };
  return {
    groups,
    request,
    taken: countTaken(groups, [...own.values()]),
    choiceOf: ({ key, standing }: Thing): Choice => own.get(key)?.choice ?? chosenIn(standing, ofGroups),
    choose: ({ key, standing }: Thing, choice: Choice) => setOwn((now) => new Map(now).set(key, { standing, choice })),
    chooseGroup: (standing: ItemStanding, choice: Choice) => {
      setOfGroups((now) => ({ ...now, [standing]: choice }));
      setOwn((now) => new Map([...now].filter(([, one]) => one.standing !== standing)));
    },
  };
}
