import { type Region, regionBox } from "@mend-joint/core/geometry";
import type { SymbolName } from "@mend-joint/core/piece";
import { useEffect, useState } from "react";
import { regionPath } from "../stage/paths";
import { ornaments } from "../workers/examiner";

/** An ornament as it would be cut. */
export function OrnamentShape({ name, size }: { name: SymbolName; size: number }) {
  const [shapes, setShapes] = useState<Record<SymbolName, Region> | null>(null);
  useEffect(() => {
    let gone = false;
    ornaments().then(
      (found) => !gone && setShapes(found),
      () => {},
    );
    return () => {
      gone = true;
    };
  }, []);
  const region = shapes?.[name];
  const box = region && regionBox(region);
  if (!box) return <span style={{ width: size, height: size }} />;
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  return (
    <svg width={size} height={size} viewBox={`${box.minX} ${-box.maxY} ${width} ${height}`} aria-hidden="true">
      <path d={regionPath(region)} transform="scale(1 -1)" fillRule="evenodd" fill="currentColor" />
    </svg>
  );
}
