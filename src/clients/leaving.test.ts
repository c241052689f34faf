import { afterEach, expect, it, vi } from "vitest";
import { fetchOutliving } from "./leaving";

afterEach(() => vi.unstubAllGlobals());

it("lets requests outlive the page up to what a browser takes, all together, and the others go as they can", async () => {
  const asked: { readonly outlives: boolean; readonly answer: () => void }[] = [];
  vi.stubGlobal(
    "fetch",
    (_path: string, init: RequestInit) =>
      new Promise<Response>((resolve) =>
        asked.push({ outlives: init.keepalive === true, answer: () => resolve(new Response()) }),
      ),
  );
  // Of two bytes each.
  const send = (letters: number) => fetchOutliving("/", { method: "POST", body: "ö".repeat(letters) });
  const first = send(20_000);
  const others = [send(20_000), send(5000), send(70_000)];
  expect(asked.map(({ outlives }) => outlives)).toEqual([true, false, true, false]);
  asked[0]!.answer();
  await first;
  others.push(send(20_000));
  expect(asked.at(-1)!.outlives).toBe(true);
  for (const { answer } of asked) answer();
  await Promise.all(others);
});
