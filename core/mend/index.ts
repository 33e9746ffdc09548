export { type MendAllOptions, type MendedAll, mendAll } from "./all";
export { beginPiece } from "./begin";
export { bridgePlace } from "./bridge";
export { intoGap } from "./intoGap";
export { type Mend, offerMends } from "./offer";
export type { MendAction, MendKind } from "./scene";
export { stickPlace } from "./stickPlace";
export { type TiedUp, tieUp } from "./tieUp";
export { uprightAngle } from "./upright";
