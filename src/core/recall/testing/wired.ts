import type { Chain, Processor } from "../../chains/chain";
import { defaultValues } from "../../processors/model";
import { getModel } from "../../processors/models";

export const processor = (key: string, model = "vca-compressor"): Processor => ({
  type: "processor",
  key,
  model,
  enabled: true,
  values: { ...defaultValues(getModel(model)) },
});

/** A section with two amplifiers side by side, lanes within the second; a compressor behind it; a macro on both. */
export const WIRED: Chain = {
  nodes: [
    {
      type: "section",
      key: "pedals",
      name: "Pedals",
      enabled: true,
      nodes: [
        processor("eq", "parametric-eq"),
        {
          type: "split",
          key: "split",
          by: { way: "copy" },
          lanes: [
            { key: "laneA", name: "Clean", enabled: true, level: -6, pan: 0, nodes: [processor("amp1", "amplifier")] },
            {
              key: "laneB",
              name: "Dirty",
              enabled: true,
              level: -90,
              pan: 20,
              nodes: [
                processor("amp2", "amplifier"),
                {
                  type: "split",
                  key: "deeper",
                  by: { way: "copy" },
                  lanes: [
                    { key: "inner", name: "1", enabled: true, level: 0, pan: 0, nodes: [processor("room", "room")] },
                    { key: "innerB", name: "2", enabled: true, level: 0, pan: 0, nodes: [] },
                  ],
                },
              ],
            },
          ],
        },
      ],
    },
    processor("comp"),
  ],
  macros: [
    {
      key: "dirt",
      name: "Dirt",
      style: "line",
      axes: [
        [
          { node: "amp1", param: "drive", from: 0, to: 40, bend: 0 },
          { node: "amp2", param: "drive", from: 30, to: 6, bend: 1 },
          { node: "laneB", param: "level", from: -90, to: 0, bend: 0 },
        ],
      ],
    },
  ],
};
