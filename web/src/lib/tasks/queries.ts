/** The key under which what somebody has to do is kept. */
export const taskKeys = { mine: ['tasks'] as const, absences: ['absences'] as const };
