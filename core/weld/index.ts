/**
 * Welding: the parts of a piece become one region of material.
 */
export { type WeldBase, weldChange } from "./change";
export { outlineLeft, type Weld, type WeldPart, weld, weldAgain } from "./weld";
