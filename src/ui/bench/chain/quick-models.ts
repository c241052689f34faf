/** The models that a bare digit adds: one of each kind that most chains hold. */
const QUICK_MODELS = [
  "parametric-eq",
  "vca-compressor",
  "multitap-delay",
  "room",
  "tape",
  "chorus",
  "gate",
  "limiter",
  "amplifier",
] as const;

export function quickKeyOf(model: string): string | null {
  const at = QUICK_MODELS.findIndex((id) => id === model);
  return at < 0 ? null : String(at + 1);
}
