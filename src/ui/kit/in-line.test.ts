// @vitest-environment jsdom
import { afterEach, describe, expect, it } from "vitest";
import { createLine } from "./in-line";

/** Work that lasts until it is let go, and says when it begins and what it comes to. */
function works() {
  const log: string[] = [];
  const ends = new Map<string, (fails: boolean) => void>();
  const work = (name: string) => (): Promise<string> => {
    log.push(name);
    return new Promise((resolve, reject) =>
      ends.set(name, (fails) => (fails ? reject(new Error(name)) : resolve(`done: ${name}`))),
    );
  };
  const end = (name: string, fails = false) => ends.get(name)!(fails);
  return { log, work, end };
}

const aMoment = () => new Promise((later) => setTimeout(later));
const leave = () => window.dispatchEvent(new Event("pagehide"));

describe("a line", () => {
  // Shown again, as the next test needs it.
  afterEach(() => void window.dispatchEvent(new Event("pageshow")));

  it("begins each piece of work when the one before is over, also where that failed", async () => {
    const { log, work, end } = works();
    const inLine = createLine();
    const [one, two, three] = [inLine(work("1")), inLine(work("2")), inLine(work("3"))];
    await aMoment();
    expect(log).toEqual(["1"]);
    end("1", true);
    await expect(one).rejects.toThrow("1");
    await aMoment();
    expect(log).toEqual(["1", "2"]);
    end("2");
    expect(await two).toBe("done: 2");
    await aMoment();
    end("3");
    expect(await three).toBe("done: 3");
  });

  it("begins what stands alone when the page is left, once and in its order; what does not stays in its place", async () => {
    const { log, work, end } = works();
    const inLine = createLine();
    const alone = (name: string) => inLine(work(name), { standsAlone: true });
    const all = [alone("1"), alone("2"), inLine(work("last")), alone("3")];
    await aMoment();
    leave();
    leave();
    expect(log).toEqual(["1", "2", "3"]);
    for (const name of log) end(name);
    await aMoment();
    expect(log).toEqual(["1", "2", "3", "last"]);
    end("last");
    expect(await Promise.all(all)).toEqual(["done: 1", "done: 2", "done: last", "done: 3"]);
    leave();
    expect(log).toHaveLength(4);
  });
});
