import { groupings, orders, type Grouping, type Order } from './arrivals';

/** How somebody looks at Arrivals. */
export interface ArrivalsLook {
  by: Order;
  grouping: Grouping;
  /** Whether the rows are aligned on the first day of each, to compare how far they are. */
  aligned: boolean;
}

export const usualLook: ArrivalsLook = { by: 'start', grouping: 'none', aligned: false };

const keyOf = (user: string) => `fid-arrivals-look ${user}`;

/** The look that a user last had in this browser; the usual one where there is none, and for whatever of it is not known any more. */
export function readLook(user: string): ArrivalsLook {
  let kept: Partial<Record<keyof ArrivalsLook, unknown>> = {};
  try {
    kept = (JSON.parse(localStorage.getItem(keyOf(user)) ?? '{}') ?? {}) as typeof kept;
  } catch {
    // What cannot be read was not kept.
  }
  return {
    by: orders.find((o) => o === kept.by) ?? usualLook.by,
    grouping: groupings.find((g) => g === kept.grouping) ?? usualLook.grouping,
    aligned: kept.aligned === true
  };
}

/** Keeps a look for the next time. */
export function keepLook(user: string, look: ArrivalsLook) {
  try {
    localStorage.setItem(keyOf(user), JSON.stringify(look));
  } catch {
    // A browser that keeps nothing has the usual look the next time.
  }
}
