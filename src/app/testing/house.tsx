import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render } from "@testing-library/react";
import type { ReactElement, ReactNode } from "react";
import { type Card, type Content, emptyCard } from "@/core/presets/preset";
import { furnish } from "./furnish";
import { answer, urlOf } from "./routes";
import type { OpenContext } from "@/server/store/context";
import { openContext } from "@/server/store/open";
import { shareContext } from "@/server/store/shared";

/*
 * The interface in front of the real routes and a real store, without a browser and without a network: what a screen asks
 * for is answered by the handlers that the server runs.
 */

/** A preset to be saved, with an empty card but for some words. */
export const presetOf = (content: Content, card: Partial<Card>) => ({
  kind: content.kind,
  content,
  card: { ...emptyCard(""), ...card },
});

export interface House {
  readonly context: OpenContext;
  /** Each request that was made: "PATCH /api/presets". */
  readonly asked: readonly string[];
  /** What the interface keeps of the server. */
  readonly queries: QueryClient;
  /** What stands around every part of the interface. */
  readonly wrapper: (props: { readonly children: ReactNode }) => ReactElement;
  /** Shows a part of the interface. */
  readonly show: (what: ReactElement) => void;
  readonly close: () => Promise<void>;
}

/** Opens an empty library, or one that is filled first. Closed at the end of a test. */
export async function openHouse(fill?: (context: OpenContext) => Promise<unknown>): Promise<House> {
  furnish();
  const folder = mkdtempSync(join(tmpdir(), "diathesis-house-"));
  const context = await openContext(folder);
  await fill?.(context);
  shareContext(context);
  const asked: string[] = [];
  const onTheirWay = new Set<Promise<Response>>();
  const outside = globalThis.fetch;
  globalThis.fetch = (input, init) => {
    asked.push(`${init?.method ?? "GET"} ${urlOf(input)}`);
    const answering = answer(input, init).finally(() => onTheirWay.delete(answering));
    onTheirWay.add(answering);
    return answering;
  };
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const wrapper: House["wrapper"] = ({ children }) => (
    <QueryClientProvider client={queries}>{children}</QueryClientProvider>
  );
  return {
    context,
    asked,
    queries,
    wrapper,
    show: (what) => void render(what, { wrapper }),
    close: async () => {
      cleanup();
      while (onTheirWay.size > 0) await Promise.allSettled(onTheirWay);
      queries.clear();
      globalThis.fetch = outside;
      await context.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
