import { FIELD_NAMES, type Field, type Term, type TermValue } from "./query";
import { fold, wordsOf } from "./words";

/** Grows by doubling. */
function grown(list: Int32Array, needed: number): Int32Array {
  if (needed <= list.length) return list;
  const larger = new Int32Array(Math.max(needed, list.length * 2));
  larger.set(list);
  return larger;
}

/** The values that a field has taken, numbered. */
class FieldValues {
  readonly texts: string[] = [];
  private readonly folded: string[] = [];
  private readonly numbers = new Map<string, number>();

  numberOf(text: string): number {
    const known = this.numbers.get(text);
    if (known !== undefined) return known;
    const number = this.texts.length;
    this.numbers.set(text, number);
    this.texts.push(text);
    this.folded.push(fold(text));
    return number;
  }

  /** 1 for each value that one of the wanted ones means. */
  marked(wanted: readonly TermValue[]): Uint8Array {
    const marks = new Uint8Array(this.texts.length);
    for (const value of wanted) for (let n = 0; n < marks.length; n++) if (this.means(value, n)) marks[n] = 1;
    return marks;
  }

  private means(value: TermValue, n: number): boolean {
    const folded = this.folded[n]!;
    switch (value.is) {
      case "exactly":
        return folded === value.text;
      case "words": {
        const words = wordsOf(folded);
        return value.words.every((sought) => words.some((word) => word.startsWith(sought)));
      }
      case "from": {
        const number = Number(folded);
        return number >= value.least && number <= value.most;
      }
    }
  }
}

const FIELD_COUNT = FIELD_NAMES.length;

/** A term, ready to be asked of many slots. */
export interface Asked {
  readonly column: number;
  readonly marks: Uint8Array;
  readonly not: boolean;
}

/**
 * What the fields of each slot say, as numbers of values in one row after the other. A slot is written once, behind the
 * last; one that changes gets a new slot.
 */
export class ValueTable {
  private readonly fields: ReadonlyMap<Field, FieldValues> = new Map(FIELD_NAMES.map((f) => [f, new FieldValues()]));
  /** Where the values of field f of slot s begin: at s · fields + f. They end where the next begin. */
  private begins: Int32Array = new Int32Array(1024 * FIELD_COUNT + 1);
  private numbers: Int32Array = new Int32Array(4096);
  private slots = 0;

  add(values: Readonly<Partial<Record<Field, readonly string[]>>>): void {
    this.begins = grown(this.begins, (this.slots + 1) * FIELD_COUNT + 1);
    let at = this.begins[this.slots * FIELD_COUNT]!;
    FIELD_NAMES.forEach((field, f) => {
      const texts = values[field] ?? [];
      this.numbers = grown(this.numbers, at + texts.length);
      for (const text of texts) this.numbers[at++] = this.fields.get(field)!.numberOf(text);
      this.begins[this.slots * FIELD_COUNT + f + 1] = at;
    });
    this.slots += 1;
  }

  ask({ field, not, values }: Term): Asked {
    return { column: FIELD_NAMES.indexOf(field), marks: this.fields.get(field)!.marked(values), not };
  }

  says(slot: number, { column, marks, not }: Asked): boolean {
    const at = slot * FIELD_COUNT + column;
    for (let i = this.begins[at]!; i < this.begins[at + 1]!; i++) if (marks[this.numbers[i]!] === 1) return !not;
    return not;
  }

  /** How often each value stands in some slots: the most frequent first, names in their order where they tie. */
  count(
    slots: Int32Array,
    count: number,
    field: Field,
    most: number,
  ): readonly (readonly [value: string, n: number])[] {
    const { texts } = this.fields.get(field)!;
    const counts = new Int32Array(texts.length);
    const column = FIELD_NAMES.indexOf(field);
    for (let s = 0; s < count; s++) {
      const at = slots[s]! * FIELD_COUNT + column;
      for (let i = this.begins[at]!; i < this.begins[at + 1]!; i++) counts[this.numbers[i]!]! += 1;
    }
    const found: (readonly [string, number])[] = [];
    for (let n = 0; n < counts.length; n++) if (counts[n]! > 0) found.push([texts[n]!, counts[n]!]);
    return found.sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1)).slice(0, most);
  }
}
