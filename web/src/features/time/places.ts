import type { PlaceSettings } from "../../api/client";
import { actCommand, numberCommand } from "../modulation/recordCommands";
import { BoardAround } from "./BoardAround";
import type { TimeMeasurement } from "./kinds";
import { PlaceSentence } from "./PlaceSentence";
import { placeAt } from "./placeAt";

/** Levels over a board, place after place. */
export const PLACES: TimeMeasurement<PlaceSettings> = {
  kind: "places",
  command: { name: "places", hint: "where on a board it is strongest" },
  tiles: {
    count: 2,
    tiles: [
      { what: "map", view: "board" },
      { what: "table:places", view: "table" },
    ],
  },
  Sentence: PlaceSentence,
  Around: BoardAround,
  commands: (change, model) => [
    numberCommand("band", "that is looked at", "Hz", (bandHz) => change({ bandHz })),
    {
      name: "place",
      argument: "<name>, <mm>, <mm>",
      hint: "where the probe is: across, up",
      run: (text: string) => {
        const place = placeAt(text);
        return typeof place === "string" ? place : change(place);
      },
    },
    {
      name: "board",
      argument: "<state>",
      hint: "its state, such as before, with shield",
      run: (state: string) => change({ state }),
    },
    actCommand("new map", "begin with no places", () =>
      change({ map: (model.state?.settings.map ?? 0) + 1 }),
    ),
  ],
};
