import type { Box } from "../plots/axes";
import type { Mark } from "../plots/mark";
import type { ScaleLine } from "../plots/scale";

/*
 * A recall sheet: a page, or several, that say how everything was set, to be read without us. Here stands what is on it, from top
 * to bottom, in words and figures; where that goes on paper is none of its business.
 *
 * Laws: every value of every plugin stands on it, written as on screen; every send and every output is named by the strip that it
 * leads to; nothing depends on the clock.
 */

export interface Fact {
  readonly label: string;
  readonly text: string;
}

export interface Table {
  readonly columns: readonly { readonly title: string; readonly isNumber?: true }[];
  readonly rows: readonly (readonly string[])[];
}

/** Values under one heading; "" for those that have none. */
export interface ValueGroup {
  readonly title: string;
  readonly values: readonly Fact[];
}

/** A plugin's own picture in a box, with the lines by which one reads it. */
export interface SheetPlot {
  readonly box: Box;
  readonly marks: readonly Mark[];
  readonly scale: readonly ScaleLine[];
}

export type Block =
  | {
      readonly kind: "heading";
      /** 1: a strip; 2: a part of it, or of a chain. */
      readonly rank: 1 | 2;
      readonly text: string;
      readonly aside: string;
    }
  | { readonly kind: "facts"; readonly facts: readonly Fact[] }
  | { readonly kind: "table"; readonly title: string; readonly table: Table }
  | {
      readonly kind: "plugin";
      /** Where in the chain it stands: "3", "3.2", "4b.1". */
      readonly place: string;
      readonly name: string;
      /** The model and its maker. */
      readonly model: string;
      readonly isOff: boolean;
      readonly facts: readonly Fact[];
      /** Groups of like values, such as the bands of an equaliser: a row of each. */
      readonly alike: Table | null;
      readonly groups: readonly ValueGroup[];
      /** Null for a plugin that is not known here. */
      readonly plot: SheetPlot | null;
    };

export interface RecallSheet {
  readonly title: string;
  /** What it is of: "Effect chain", "Project". */
  readonly of: string;
  readonly facts: readonly Fact[];
  readonly notes: string;
  readonly blocks: readonly Block[];
}

/** A fact where there is something to say. */
export const factOf = (label: string, text: string | null | undefined): readonly Fact[] =>
  text === null || text === undefined || text === "" ? [] : [{ label, text }];

export const onOrOff = (on: boolean): string => (on ? "on" : "off");
