import { text } from '$lib/text/index.svelte';
import { untrack } from 'svelte';

/** A key that does something where the reader is now. */
interface Shortcut {
  /** What to press, such as "n", "Ctrl+k", "ArrowDown" or "?". */
  key: string;
  /** What it does, for the list of keys; left out where the list has it already. */
  label?: string;
  run: () => void;
  /** Works while typing too. */
  whileTyping?: boolean;
}

const named = (event: KeyboardEvent) => {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  return (event.ctrlKey || event.metaKey ? 'Ctrl+' : '') + (event.altKey ? 'Alt+' : '') + key;
};

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** The keys of what is on the screen; what came last answers first, and a dialog keeps the keys of what lies under it quiet. */
class Keys {
  #groups = $state.raw<{ shortcuts: () => Shortcut[]; alone: boolean }[]>([]);

  /** For $effect: the shortcuts count until the effect ends. */
  use(shortcuts: () => Shortcut[], alone = false) {
    const group = { shortcuts, alone };
    // Untracked: the effect that adds a group must not run again because of it.
    untrack(() => (this.#groups = [...this.#groups, group]));
    return () => untrack(() => (this.#groups = this.#groups.filter((g) => g !== group)));
  }

  get all(): Shortcut[] {
    return this.#groups.flatMap((g) => g.shortcuts()).filter((s) => s.label);
  }

  handle(event: KeyboardEvent) {
    if (event.defaultPrevented || event.isComposing) return;
    const key = named(event);
    for (const group of [...this.#groups].reverse()) {
      const found = group.shortcuts().find((s) => s.key === key && (s.whileTyping || !typing(event.target)));
      if (found) {
        event.preventDefault();
        found.run();
        return;
      }
      if (group.alone) return;
    }
  }
}

export const keys = new Keys();

/** How a key is written on buttons and in the list. */
export const keyName = (key: string) =>
  key
    .replace('Ctrl+', `${text.t.keys.control} `)
    .replace('Alt+', 'Alt ')
    .replace('ArrowDown', '↓')
    .replace('ArrowUp', '↑')
    .replace('Escape', 'Esc')
    .replace(/(^| )([a-z])$/, (_, space: string, letter: string) => space + letter.toUpperCase());
