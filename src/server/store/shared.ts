import type { Context } from "./context";

const SHARED = Symbol.for("diathesis.context");
type Shared = typeof globalThis & { [SHARED]?: Context };

/** The server before Next and the route handlers are built apart and meet here. */
export function shareContext(context: Context): void {
  (globalThis as Shared)[SHARED] = context;
}

export function sharedContext(): Context {
  const context = (globalThis as Shared)[SHARED];
  if (!context)
    throw new Error("The store is opened by the server before Next: start it by npm start or npm run demo.");
  return context;
}
