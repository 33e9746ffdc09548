/**
 * Drafts in the browser's own store: what the server has not got yet, one for each piece and tab.
 */
import { type Piece, parsePiece } from "@mend-joint/core/piece";
import type { Draft } from "./saveMachine";

const PREFIX = "mend-joint:draft:";
const TAB_KEY = "mend-joint:tab";

/** The same after a reload, another in every tab. */
function nameOfTab(): string {
  try {
    const known = sessionStorage.getItem(TAB_KEY);
    if (known) return known;
    const made = crypto.randomUUID();
    sessionStorage.setItem(TAB_KEY, made);
    return made;
  } catch {
    return crypto.randomUUID();
  }
}

const tab = nameOfTab();
/** Held for as long as this tab lives, so that others can tell its drafts from those that nobody comes back to. */
const lockOf = (name: string) => `${TAB_KEY}:${name}`;
void navigator.locks?.request(lockOf(tab), () => new Promise(() => {}));

const keyOf = (id: string, name = tab) => `${PREFIX}${id}:${name}`;

/** @returns false where the browser's store is full or closed */
export function writeDraft(id: string, draft: Draft | null): boolean {
  try {
    if (draft) localStorage.setItem(keyOf(id), JSON.stringify(draft));
    else localStorage.removeItem(keyOf(id));
    return true;
  } catch {
    return false;
  }
}

/** The draft of this tab, else one that a tab left behind which is no more: it is this tab's from then on. */
export async function takeDraft(id: string): Promise<Draft | null> {
  const own = readDraft(keyOf(id));
  if (own) return own;
  const living = await livingTabs();
  const keys = Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? "");
  for (const key of keys) {
    // Drafts of earlier versions had no tab in their name.
    if (!key.startsWith(`${PREFIX}${id}:`) && key !== `${PREFIX}${id}`) continue;
    const name = key.slice(`${PREFIX}${id}:`.length);
    if (living?.has(lockOf(name))) continue;
    const draft = readDraft(key);
    if (!draft) continue;
    if (writeDraft(id, draft)) localStorage.removeItem(key);
    return draft;
  }
  return null;
}

/** @returns `null` where the browser cannot tell */
async function livingTabs(): Promise<Set<string> | null> {
  const held = await navigator.locks?.query().catch(() => null);
  return held ? new Set(held.held?.map(({ name }) => name ?? "")) : null;
}

function readDraft(key: string): Draft | null {
  const text = localStorage.getItem(key);
  if (!text) return null;
  try {
    const { version, piece, sent = [] } = JSON.parse(text) as { version: number; piece: unknown; sent?: string[] };
    return { version, piece: parsePiece(piece) as Piece, sent };
  } catch {
    return null;
  }
}
