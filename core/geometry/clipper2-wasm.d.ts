/** The package ships its types beside, not with, the file that is loaded. */
declare module "clipper2-wasm/dist/es/clipper2z.js" {
  import type { MainModule } from "clipper2-wasm/dist/clipper2z";

  const load: () => Promise<MainModule>;
  export default load;
}
