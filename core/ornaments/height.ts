/** Height that silhouettes are drawn for. */
export const DRAWN = 100;
