/** All that a hand does on a strip, each as the steps that do it. */
export * from "./gestures/groups";
export type { Hand } from "./gestures/hand";
export * from "./gestures/lanes";
export * from "./gestures/layers";
export * from "./gestures/macros";
export * from "./gestures/mend";
export * from "./gestures/put-back";
export * from "./gestures/slots";
export * from "./gestures/values";
export * from "./gestures/whole";
export * from "./gestures/wiring";
