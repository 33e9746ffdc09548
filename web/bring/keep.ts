/** The maker's shelf: outlines that are kept for other pieces. */
import type { KeptOutline } from "@mend-joint/core/piece";
import { toast } from "sonner";
import { keepOutline, listOutlines } from "../state/api";

export async function keepOnShelf({ name, outline, height }: Omit<KeptOutline, "id">): Promise<void> {
  try {
    await keepOutline({ id: crypto.randomUUID(), name, outline, height });
    toast(`“${name}” is on your shelf: it is offered wherever you bring in a drawing, and among the ornaments.`);
  } catch (error) {
    toast.error((error as Error).message);
  }
}

/** What is on the shelf; when it cannot be had, nothing, and that is said. */
export async function outlinesOnShelf(): Promise<KeptOutline[]> {
  try {
    return await listOutlines();
  } catch {
    toast.error("The outlines on your shelf could not be read. Open this again in a moment.");
    return [];
  }
}
