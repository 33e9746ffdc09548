/** Keeping outlines for other pieces. */
import type { KeptOutline } from "@mend-joint/core/piece";
import { toast } from "sonner";
import { keepOutline } from "../state/api";

export async function keepOnShelf({ name, outline, height }: Omit<KeptOutline, "id">): Promise<void> {
  try {
    await keepOutline({ id: crypto.randomUUID(), name, outline, height });
    toast(`“${name}” is on your shelf: it is offered wherever you bring in a drawing, and among the ornaments.`);
  } catch (error) {
    toast.error((error as Error).message);
  }
}
