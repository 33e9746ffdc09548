/**
 * Loads a program that a thread or a process is started for: as it was built, in one file (MEND_JOINT_BUILT is the address of the folder),
 * in a moment; or else from its sources, which Node.js reads only after it has been told about TypeScript.
 *
 * @param {string} name of the built file, without its ending
 * @param {URL} source
 */
export async function load(name, source) {
  const built = process.env.MEND_JOINT_BUILT;
  if (built) return import(new URL(`${name}.js`, built).href);
  const { register } = await import("tsx/esm/api");
  register();
  return import(source.href);
}
