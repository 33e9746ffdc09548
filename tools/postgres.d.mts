/** Folder of the newest server programs, or `null` where there are none. */
export function postgresPrograms(): string | null;
/** Starts a server on a folder, which is made where it is missing. */
export function startPostgres(folder: string): Promise<{ address: string; stop(): Promise<void> }>;
