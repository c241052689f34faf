// @vitest-environment jsdom
import { act, cleanup, render, screen, within } from "@testing-library/react";
import { createRef } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { quiet, sendMeters } from "@/app/testing/engine";
import { furnish } from "@/app/testing/furnish";
import { hear, setPlaying } from "./listening";
import { useListening } from "./state";
import { Meters } from "./meters";

vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"));

const START = useListening.getState();
const plugin = (key: string, model: string) => ({ type: "processor" as const, key, model, enabled: true, values: {} });

beforeEach(async () => {
  furnish();
  quiet();
  useListening.setState(START, true);
  await setPlaying(true);
  const nodes = [plugin("comp", "vca-compressor"), plugin("meter", "meter"), plugin("tuner", "tuner")];
  hear({ name: "Rim", tempo: 120, chain: { nodes, macros: [] } });
  render(<Meters anchor={createRef()} onClose={() => undefined} />);
});

afterEach(cleanup);

const readings = (comp: number, meter: number, tuner: number) =>
  act(() =>
    sendMeters({
      correlation: -1,
      processors: [
        { key: "comp", peakIn: 1, reading: comp },
        { key: "meter", peakIn: 1, reading: meter },
        { key: "tuner", peakIn: 1, reading: tuner },
      ],
    }),
  );
const figureBeside = (words: string) => within(screen.getByText(words).parentElement!).getByText(/\d/).textContent;

describe("the meters", () => {
  it("tell the deepest reduction of what reduces, not what others read, and let it rise again slowly", () => {
    readings(-4.2, -23, 440);
    expect(figureBeside("Deepest gain reduction now")).toBe("4.2");
    readings(0, -23, 440);
    expect(figureBeside("Deepest gain reduction now")).toBe("3.9");
    for (let n = 0; n < 120; n++) readings(0, -23, 440);
    expect(figureBeside("Deepest gain reduction now")).toBe("0.0");
  });

  it("follow the correlation of the sides", () => {
    readings(0, -23, 0);
    expect(figureBeside("Correlation of the sides")).toBe("0.60");
    for (let n = 0; n < 60; n++) readings(0, -23, 0);
    expect(figureBeside("Correlation of the sides")).toBe("−1.00");
  });

  it("tell what was measured of what is heard, beside the dry material", () => {
    const measured = {
      truePeakDb: -1,
      loudnessRangeLu: 5,
      peakDb: -2,
      rmsDb: -20,
      crestDb: 18,
      correlation: 1,
      seconds: 8,
    };
    act(() =>
      useListening.setState({
        measured: {
          dry: { ...measured, integratedLufs: -20 },
          a: { ...measured, integratedLufs: Number.NEGATIVE_INFINITY },
        },
      }),
    );
    const row = screen.getByRole("row", { name: /Loudness of the loop/ });
    expect(row.textContent).toBe("Loudness of the loop–LUFS−20.0");
  });
});
