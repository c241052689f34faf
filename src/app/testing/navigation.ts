import { create } from "zustand";

/*
 * The address, in place of Next's router: `vi.mock("next/navigation", () => import("@/app/testing/navigation"))`. As
 * there, what a screen writes into the browser's history is seen by all.
 */

const here = () => ({ path: window.location.pathname, params: new URLSearchParams(window.location.search) });

const usePlace = create(here);

/** Screens are told of what is written only when the router says so. */
let isLate = false;

for (const way of ["pushState", "replaceState"] as const) {
  const write = window.history[way].bind(window.history);
  window.history[way] = (...written) => {
    write(...written);
    if (!isLate) usePlace.setState(here());
  };
}

/**
 * From now on screens are told of what was written only by what is returned, as by a router that has much to do. As Next's does, it
 * writes what it tells of over what was written since.
 */
export function tellLate(): (address: string) => void {
  isLate = true;
  return (address) => {
    window.history.replaceState(null, "", address);
    usePlace.setState(here());
  };
}

export const tellAtOnce = (): void => void (isLate = false);

window.addEventListener("popstate", () => usePlace.setState(here()));

export const goTo = (address: string): void => window.history.pushState(null, "", address);

/** "/bench?preset=rim" */
export const whereNow = (): string => `${window.location.pathname}${window.location.search}`;

/** The one that every screen has. */
export const router = { push: goTo, replace: goTo, prefetch: () => undefined };

export const useRouter = () => router;
export const usePathname = () => usePlace((place) => place.path);
export const useSearchParams = () => usePlace((place) => place.params);
