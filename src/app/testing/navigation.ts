import { create } from "zustand";

/*
 * The address, in place of Next's router: `vi.mock("next/navigation", () => import("@/app/testing/navigation"))`. As
 * there, what a screen writes into the browser's history is seen by all.
 */

const here = () => ({ path: window.location.pathname, params: new URLSearchParams(window.location.search) });

const usePlace = create(here);

for (const way of ["pushState", "replaceState"] as const) {
  const write = window.history[way].bind(window.history);
  window.history[way] = (...written) => {
    write(...written);
    usePlace.setState(here());
  };
}

window.addEventListener("popstate", () => usePlace.setState(here()));

export const goTo = (address: string): void => window.history.pushState(null, "", address);

/** "/bench?preset=rim" */
export const whereNow = (): string => `${window.location.pathname}${window.location.search}`;

/** The one that every screen has. */
export const router = { push: goTo, replace: goTo, prefetch: () => undefined };

export const useRouter = () => router;
export const usePathname = () => usePlace((place) => place.path);
export const useSearchParams = () => usePlace((place) => place.params);
