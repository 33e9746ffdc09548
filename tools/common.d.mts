/** The folder of the whole project. */
export const ROOT: string;
/** Where the programs of Node.js are built. */
export const BUILT: string;
