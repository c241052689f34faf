import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Column, COLUMN_NAMES, columnsAsText, columnsIn } from "./columns";

describe("columns in an address", () => {
  it("come back as they were written, in one order, with the one that the list is sorted by", () => {
    const sorts = [undefined, "name", ...COLUMN_NAMES] as const;
    fc.assert(
      fc.property(fc.shuffledSubarray([...COLUMN_NAMES]), fc.constantFrom(...sorts), (columns, sort) => {
        const wanted: Column[] = COLUMN_NAMES.filter((name) => columns.includes(name) || name === sort);
        expect(columnsIn(columnsAsText(columns), sort)).toEqual(wanted);
      }),
    );
  });
  it("are what was used last where nothing is said, and never what is no column", () => {
    expect(columnsIn(undefined, undefined)).toEqual(["used"]);
    expect(columnsIn("loud,rating,constructor", "name")).toEqual(["rating"]);
  });
});
