import { describe, expect, it } from 'vitest';
import { meetingWords, minutesOf, until } from './meeting';

describe('a meeting', () => {
  it('says from when until when, and where', () => {
    expect(meetingWords({ at: '09:30', minutes: 90, place: 'Harbour office' })).toBe('09:30–11:00, Harbour office');
    expect(meetingWords({ at: '09:30', minutes: null, place: null })).toBe('09:30');
    expect(meetingWords({ at: null, minutes: null, place: 'Loft' })).toBe('Loft');
    expect(meetingWords(null)).toBe('');
  });
  it('goes on past midnight', () => expect(until('23:15', 60)).toBe('00:15'));
  it('leaves what is no number to be refused at its field', () => {
    expect([minutesOf(''), minutesOf(' 45 '), minutesOf('an hour'), minutesOf('-5')]).toEqual([null, 45, -1, -1]);
  });
});
