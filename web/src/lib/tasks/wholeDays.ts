/** A whole number of working days as it is typed; undefined where it is none. */
export const wholeDays = (typed: string) => (/^\d{1,3}$/.test(typed.trim()) ? Number(typed) : undefined);
