/**
 * Machine profiles: how a cutter tells what a line is for, and what else a file for it has to keep to.
 */
import { z } from "zod";

export const LINE_PURPOSES = ["engrave", "score", "cut"] as const;
/** What a line is for, in the order in which a machine does it: what is cut free can no longer be marked. */
export type LinePurpose = (typeof LINE_PURPOSES)[number];

const look = z.strictObject({
  colour: z.string().regex(/^#[0-9a-f]{6}$/i, "must be a colour such as #ff0000"),
  layer: z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, "must be 1 to 40 letters, digits, - or _"),
});

/** Shortest and longest that a machine may be told, mm. */
const length = (least: number, most: number) => z.number().min(least).max(most);

export const profileSchema = z
  .strictObject({
    id: z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, "must be 1 to 40 letters, digits, - or _"),
    name: z.string().trim().min(1, "must not be empty").max(60),
    lines: z.strictObject({ engrave: look, score: look, cut: look }),
    /** Width of lines in files, mm. A hairline of 0.25 pt is common practice, no published source. */
    hairline: length(0.001, 1).default((0.25 * 25.4) / 72),
    bed: z.strictObject({ width: length(10, 5000), height: length(10, 5000) }),
    /**
     * The corner of the bed that the machine counts from. SVG and PDF have pages, and lie in either; a DXF drawing lies above the x
     * axis for machines that count from below, under it for those that count from above.
     */
    origin: z.enum(["top-left", "bottom-left"]).default("bottom-left"),
    /** Who makes allowance for the width of the cut where the piece is cut outside its line: the file, or the machine itself. */
    kerfBy: z.enum(["file", "machine"]).default("file"),
    /** Engraving as filled areas, or as their outlines. */
    engraveAs: z.enum(["fill", "line"]).default("fill"),
    /** Whether the machine takes filled shapes at all. */
    fills: z.enum(["engraved", "refused"]).default("engraved"),
  })
  .superRefine(({ lines, fills, engraveAs }, context) => {
    const colours = LINE_PURPOSES.map((purpose) => lines[purpose].colour.toLowerCase());
    const layers = LINE_PURPOSES.map((purpose) => lines[purpose].layer);
    if (new Set(colours).size < 3 && new Set(layers).size < 3)
      context.addIssue({ code: "custom", path: ["lines"], message: "every purpose needs a colour or a layer of its own" });
    if (fills === "refused" && engraveAs === "fill")
      context.addIssue({ code: "custom", path: ["engraveAs"], message: "must be lines on a machine that takes no fills" });
  });

export type MachineProfile = z.output<typeof profileSchema>;

const read = (profile: z.input<typeof profileSchema>): MachineProfile => profileSchema.parse(profile);

/** Red cut, blue score, black engrave is a convention of many small lasers; common practice, no published source. */
export const PROFILES: readonly MachineProfile[] = [
  read({
    id: "laser-by-colour",
    name: "Laser, told by colour",
    lines: {
      engrave: { colour: "#000000", layer: "engrave" },
      score: { colour: "#0000ff", layer: "score" },
      cut: { colour: "#ff0000", layer: "cut" },
    },
    bed: { width: 600, height: 400 },
  }),
  read({
    id: "machine-by-layer",
    name: "Machine, told by layer",
    lines: {
      engrave: { colour: "#006400", layer: "ENGRAVE" },
      score: { colour: "#0000ff", layer: "SCORE" },
      cut: { colour: "#000000", layer: "CUT" },
    },
    bed: { width: 900, height: 600 },
    kerfBy: "machine",
    engraveAs: "line",
    fills: "refused",
  }),
];

export const profileById = (id: string, own: readonly MachineProfile[] = []) =>
  [...PROFILES, ...own].find((profile) => profile.id === id);

/** By layer where the file has layers of these names, else by colour. */
export function purposeOf({ lines }: Pick<MachineProfile, "lines">, colour: string, layer: string | null): LinePurpose | null {
  return (
    LINE_PURPOSES.find((purpose) => layer !== null && lines[purpose].layer.toLowerCase() === layer.toLowerCase()) ??
    LINE_PURPOSES.find((purpose) => lines[purpose].colour.toLowerCase() === colour.toLowerCase()) ??
    null
  );
}
