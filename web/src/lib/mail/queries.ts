/** The keys under which reminders and what went out by mail are kept. */
export const mailKeys = {
  all: ['mail'] as const,
  on: (day: string | null) => ['mail', 'on', day] as const,
  sent: ['mail', 'sent'] as const,
  texts: ['mail', 'texts'] as const,
  preview: (kind: string, language: string, asked: object) => ['mail', 'preview', kind, language, asked] as const
};
