import { toast } from 'svelte-sonner';

const undoTime = 10_000;

/** Says that something was done, and offers for a while to take it back. */
export function done(message: string, undo?: { label: string; run: () => void }) {
  toast(message, { duration: undo ? undoTime : 4_000, action: undo ? { label: undo.label, onClick: undo.run } : undefined });
}

export function failed(message: string) {
  toast.error(message, { duration: 8_000 });
}
