/** All that a hand does with the strips of a project, each as the steps that do it. */

export * from "./arrange/change-part";
export * from "./arrange/clean";
export * from "./arrange/duplicate";
export * from "./arrange/group";
export * from "./arrange/move";
export * from "./arrange/outputs";
export * from "./arrange/reach";
export * from "./arrange/remove";
export * from "./arrange/sends";
