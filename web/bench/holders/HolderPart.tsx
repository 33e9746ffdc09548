import type { Piece } from "@mend-joint/core/piece";
import type { Holder } from "@mend-joint/core/wording";
import { BackingForm } from "./BackingForm";
import { BarForm } from "./BarForm";
import { DrawingForm } from "./DrawingForm";
import { LoopForm } from "./LoopForm";
import { OrnamentForm } from "./OrnamentForm";
import { ShapeForm } from "./ShapeForm";
import { StakeForm } from "./StakeForm";
import { StickForm } from "./StickForm";
import { FillForm, TieForm } from "./TieForm";

/** The figures of one part that is no word. */
export function HolderPart({ part, piece }: { part: Holder; piece: Piece }) {
  switch (part.kind) {
    case "bar":
      return <BarForm bar={part} />;
    case "stick":
      return <StickForm stick={part} />;
    case "tie":
      return <TieForm tie={part} />;
    case "fill":
      return <FillForm fill={part} />;
    case "stake":
      return <StakeForm stake={part} />;
    case "loop":
      return <LoopForm loop={part} />;
    case "backing":
      return <BackingForm backing={part} piece={piece} />;
    case "shape":
      return <ShapeForm shape={part} />;
    case "ornament":
      return <OrnamentForm ornament={part} />;
    case "drawing":
      return <DrawingForm drawing={part} />;
  }
}
