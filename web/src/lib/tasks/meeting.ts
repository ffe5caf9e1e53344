import type { Api } from '$lib/api/client';

/** When one is done that begins at a time of day, HH:mm. After midnight it is the next day's time. */
export function until(at: string, minutes: number): string {
  const all = (Number(at.slice(0, 2)) * 60 + Number(at.slice(3, 5)) + minutes) % (24 * 60);
  return `${String(Math.floor(all / 60)).padStart(2, '0')}:${String(all % 60).padStart(2, '0')}`;
}

/** When and where one meets, in a few words; nothing where it has neither. */
export function meetingWords(meeting: Api['MeetingResponse'] | null): string {
  if (!meeting) return '';
  const time = meeting.at === null ? '' : meeting.minutes === null ? meeting.at : `${meeting.at}–${until(meeting.at, meeting.minutes)}`;
  return [time, meeting.place ?? ''].filter(Boolean).join(', ');
}

/** A number of minutes as it was typed: none for nothing, and one that the server refuses at its field for what is no number. */
export const minutesOf = (typed: string): number | null =>
  typed.trim() === '' ? null : /^\d{1,5}$/.test(typed.trim()) ? Number(typed) : -1;
