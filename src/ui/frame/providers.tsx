"use client";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { followChanges } from "@/clients/events";
import { prepareListening } from "../listening/listening";
import { isKnown } from "../projects/sending";
import { useInHand } from "../projects/in-hand";

/** What every screen stands on: server data, news of changes, what is in hand, the sound. */
export function Providers({ children }: { readonly children: ReactNode }) {
  const [queries] = useState(
    () =>
      new QueryClient({ defaultOptions: { queries: { staleTime: 30_000, refetchOnWindowFocus: false, retry: 1 } } }),
  );
  useEffect(() => {
    void useInHand.persist.rehydrate();
    void prepareListening();
    return followChanges(queries, (project, revision) => isKnown(queries, project, revision));
  }, [queries]);
  return <QueryClientProvider client={queries}>{children}</QueryClientProvider>;
}
