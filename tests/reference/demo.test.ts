/** The demo as a shop would have it: nobody books a bay for a day it is shut. */
import { expect, it } from 'vitest';
import { atHour } from '../../db/demo/jobs';

it('books bays on working days, today where it is one', () => {
  for (let day = 0; day < 14; day++) {
    const now = new Date(Date.UTC(2026, 10, 20 + day, 15, 30));
    const booked = new Date(atHour(now, 9));
    expect([1, 2, 3, 4, 5]).toContain(booked.getUTCDay());
    expect(booked.getUTCHours()).toBe(9);
    const days = (booked.getTime() - Date.UTC(2026, 10, 20 + day, 9)) / 86_400_000;
    expect(days).toBe(now.getUTCDay() === 6 ? 2 : now.getUTCDay() === 0 ? 1 : 0);
  }
});
