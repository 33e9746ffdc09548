/**
 * From a piece to lines for a machine.
 */
export * from "./effort";
export * from "./order";
export * from "./plan";
export * from "./preflight";
export * from "./profile";
export * from "./startHoles";
export { TAB_LIMITS, type Tabs, tabsOf, withTabs } from "./tabs";
