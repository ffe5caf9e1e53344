import { Debounced } from 'runed';

const pause = 200;

/** What is typed once it rests for a moment: what the server is asked with, so that it is not asked for every key. */
export const settled = <T>(typed: () => T) => new Debounced(typed, pause);
