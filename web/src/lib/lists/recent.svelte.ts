const MOST = 8;

/** Which entries of each list this browser used last, newest first. */
class Recent {
  #used = $state<Record<string, string[]>>(read());

  of(list: string): string[] {
    return this.#used[list] ?? [];
  }

  use(list: string, code: string) {
    this.#used[list] = [code, ...this.of(list).filter((c) => c !== code)].slice(0, MOST);
    try {
      localStorage.setItem('fid-recent', JSON.stringify(this.#used));
    } catch {
      // A browser that keeps nothing still remembers until the page is left.
    }
  }
}

function read(): Record<string, string[]> {
  try {
    return JSON.parse(localStorage.getItem('fid-recent') ?? '{}') as Record<string, string[]>;
  } catch {
    return {};
  }
}

export const recent = new Recent();
