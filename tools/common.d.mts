/** The folder of the whole project. */
export const ROOT: string;
/** Where the file of all that threads load is built. */
export const TASKS: string;
