import { create } from "zustand";

/** The address, in place of Next's router: `vi.mock("next/navigation", () => import("@/app/testing/navigation"))`. */
const usePlace = create(() => ({ path: "/", params: new URLSearchParams() }));

export function goTo(address: string): void {
  const { pathname, searchParams } = new URL(address, "http://127.0.0.1");
  usePlace.setState({ path: pathname, params: searchParams });
}

/** "/bench?preset=rim" */
export function whereNow(): string {
  const { path, params } = usePlace.getState();
  return params.size === 0 ? path : `${path}?${params}`;
}

const router = { push: goTo, replace: goTo, prefetch: () => undefined };

export const useRouter = () => router;
export const usePathname = () => usePlace((place) => place.path);
export const useSearchParams = () => usePlace((place) => place.params);
