"use client";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { isUnreachable } from "@/clients/api";
import { followChanges } from "@/clients/events";
import { prepareListening } from "../listening/listening";
import { isKnown } from "../projects/sending";
import { useInHand } from "../projects/in-hand";

/** So often is asked again for what did not come. */
const MOST_TRIES = 2;

/** What every screen stands on: server data, news of changes, what is in hand, the sound. */
export function Providers({ children }: { readonly children: ReactNode }) {
  const [queries] = useState(
    () =>
      new QueryClient({
        defaultOptions: {
          queries: {
            staleTime: 30_000,
            refetchOnWindowFocus: false,
            retry: (tries, error) => isUnreachable(error) && tries < MOST_TRIES,
          },
        },
      }),
  );
  useEffect(() => {
    void useInHand.persist.rehydrate();
    void prepareListening();
    return followChanges(queries, (project, revision) => isKnown(queries, project, revision));
  }, [queries]);
  return <QueryClientProvider client={queries}>{children}</QueryClientProvider>;
}
