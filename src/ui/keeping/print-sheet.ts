import type { SheetWanted } from "@/clients/sheets";
import { orSay } from "../kit/say";

/** Prints a recall sheet; what that takes comes when it is first asked for. */
export const printSheet = (wanted: SheetWanted, called: string): void =>
  orSay(import("./print").then((m) => m.print(wanted, called)));
