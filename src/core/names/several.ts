/** Several of a kind in one line: "Copper Heron; Tidal Clocks". */
export const several = (text: string | undefined): readonly string[] =>
  (text ?? "").split(";").flatMap((one) => (one.trim() === "" ? [] : [one.trim()]));

/** The same to be read: "Copper Heron, Tidal Clocks". */
export const severalWords = (text: string | undefined): string => several(text).join(", ");
