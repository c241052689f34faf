import type { KeyboardEvent } from "react";
import { giveBack } from "./keep-focus";

/** Keys of a field that is typed over in place and taken when it is left: Enter leaves it, Escape with what stood there before. */
export const inPlaceKeys =
  (before: string) =>
  (event: KeyboardEvent<HTMLInputElement>): void => {
    const { key, currentTarget: field } = event;
    if (key !== "Enter" && key !== "Escape") return;
    event.preventDefault();
    if (key === "Escape") field.value = before;
    giveBack(field);
  };
