/** Several of a kind in one line: "Copper Heron; Tidal Clocks". */
export const several = (text: string | undefined): readonly string[] =>
  (text ?? "").split(";").flatMap((one) => (one.trim() === "" ? [] : [one.trim()]));
