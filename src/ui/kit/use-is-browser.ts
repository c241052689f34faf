import { useSyncExternalStore } from "react";

const never = () => () => undefined;

/** False on the server and while the page is being taken over from it; true from then on. */
export const useIsBrowser = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
