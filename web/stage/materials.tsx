import { lookOf, materialTile, type SheetLook, TILE } from "@mend-joint/core/formats";
import { memo } from "react";

export { lookOf, type SheetLook };

/** A sheet to fill shapes with. @param id of the pattern, to be used as `url(#id)` */
export const MaterialPattern = memo(
  function MaterialPattern({ id, sheet }: { id: string; sheet: SheetLook }) {
    return (
      <pattern
        id={id}
        {...TILE}
        patternUnits="userSpaceOnUse"
        // biome-ignore lint/security/noDangerouslySetInnerHtml: drawn by the core from fixed figures and a colour that the schema lets through
        dangerouslySetInnerHTML={{ __html: materialTile(sheet) }}
      />
    );
  },
  (one, other) => one.id === other.id && one.sheet.material === other.sheet.material && one.sheet.colour === other.sheet.colour,
);
