import { cutText } from "../names/cut";
import { type Field, isField } from "./fields";

/* What stands in the field on top and in the address, as it is written. */

/** Letters of the field that are read. */
export const MOST_LETTERS = 4000;

/** What was typed, as far as it is read. */
export const cutQuery = (text: string): string => cutText(text, MOST_LETTERS);

/** A value: exactly that (`="…"`), a phrase in quotes, or bare. */
export const VALUE = /(=?)"([^"]*)"?|([^,"]+)/gu;

/** A value as it must be typed to be found exactly. */
export const quoteValue = (value: string): string => `="${value.replaceAll('"', "")}"`;

/**
 * Chosen values of fields, beside the field on top: any of the values of one field, and all fields. Each value stands as it
 * is written: in quotes as it is chosen from a list, bare as a hand may write it into an address.
 */
export type Filters = ReadonlyMap<Field, readonly string[]>;

const FILTER = /(\p{L}+):((?:(?:"[^"]*"|[^\s",]+),?)+)/gu;

const unquoted = (written: string): string => written.replace(/^=(?=")/, "").replaceAll('"', "");

/** The values of a field that are chosen, without their quotes. */
export const chosenOf = (filters: Filters, field: Field): readonly string[] => (filters.get(field) ?? []).map(unquoted);

/** Filters as they stand in an address; what is no filter is passed over. */
export function readFilters(text: string): Filters {
  const filters = new Map<Field, readonly string[]>();
  for (const [, name = "", list = ""] of text.matchAll(FILTER))
    if (isField(name))
      filters.set(
        name,
        [...list.matchAll(VALUE)].map(([written, , quoted, bare = ""]) => (quoted === undefined ? bare : written)),
      );
  return filters;
}

export const writeFilters = (filters: Filters): string =>
  [...filters]
    .filter(([, values]) => values.length > 0)
    .map(([field, values]) => `${field}:${values.join(",")}`)
    .join(" ");

/** Switches one value of a field on or off. */
export function toggleFilter(filters: Filters, field: Field, value: string): Filters {
  const before = filters.get(field) ?? [];
  const others = before.filter((written) => unquoted(written) !== value);
  const after = others.length < before.length ? others : [...before, quoteValue(value)];
  return new Map([...filters, [field, after]]);
}

/** The part of the text that is being typed at its end, where a field's value is: for completing it. */
export function openField(
  text: string,
): { readonly field: Field; readonly begun: string; readonly from: number } | null {
  const found = /(?:^|\s)-?(\p{L}+):(?:(?:=?"[^"]*"|[^\s",]+),)*((?:=?")?)([^",\s]*|[^",]*)$/u.exec(text);
  const field = found?.[1]?.toLowerCase();
  if (!found || field === undefined || !isField(field)) return null;
  const [quote, begun] = [found[2] ?? "", found[3] ?? ""];
  if (quote === "" && /\s/.test(begun)) return null;
  return { field, begun, from: text.length - begun.length - quote.length };
}
