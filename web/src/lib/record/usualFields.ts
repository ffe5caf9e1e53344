/** What changes with a job as a rule, or is said of a leaving; the rest is added where it is wanted. */
export const usualFields = ['job', 'department', 'site', 'manager', 'pay_rate', 'end_reason'];
