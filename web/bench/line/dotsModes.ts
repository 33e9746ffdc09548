import type { DotsMode } from "@mend-joint/core/piece";

/** What can be done about dots and accents, in the maker's words. */
export const DOTS_MODES: readonly { value: DotsMode; text: string }[] = [
  { value: "leave", text: "as in the font" },
  { value: "bite", text: "lowered until they bite" },
  { value: "tie", text: "tied straight down" },
  { value: "slanted", text: "tied at a slant" },
  { value: "neighbour", text: "tied to the letter beside" },
];
