/** The parser alone: the rest of the package knows what every property may be, which takes a quarter of a megabyte. */
declare module "css-tree/parser" {
  import { parse } from "css-tree";
  export default parse;
}
