import type { ReactNode } from "react";

/** Fields side by side, two in a row. */
export const Two = ({ children }: { children: ReactNode }) => <div className="grid grid-cols-2 gap-x-4 gap-y-3">{children}</div>;
