/**
 * What the cutter's page can show of a piece.
 */
export const VIEWS = [
  { value: "finished", text: "Finished" },
  { value: "lines", text: "Lines" },
  { value: "paper", text: "Paper pattern" },
  { value: "trial", text: "Trial cut" },
] as const;
export type CutView = (typeof VIEWS)[number]["value"];
