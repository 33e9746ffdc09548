import { LOOKS, materialTile, TILE } from "@mend-joint/core/formats";
import { memo } from "react";

export { LOOKS };

/** A sheet material to fill shapes with. @param id of the pattern, to be used as `url(#id)` */
export const MaterialPattern = memo(function MaterialPattern({ id, material }: { id: string; material: keyof typeof LOOKS }) {
  return (
    <pattern
      id={id}
      {...TILE}
      patternUnits="userSpaceOnUse"
      // biome-ignore lint/security/noDangerouslySetInnerHtml: drawn by the core from fixed figures, nothing of the maker's is in it
      dangerouslySetInnerHTML={{ __html: materialTile(material) }}
    />
  );
});
