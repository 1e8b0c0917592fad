import { expect, it } from 'vitest';
import { dutyDueMs, isDutyDue } from './calibrationDuty.ts';

it('a duty is due from its day on, and at once where it was never done', () => {
  const done = Date.UTC(2026, 10, 2, 9);
  const duty = { words: 'Front end calibrated', days: 7, doneMs: done };
  const due = Date.UTC(2026, 10, 9, 9);
  expect(dutyDueMs(duty)).toBe(due);
  expect(isDutyDue(duty, due - 1)).toBe(false);
  expect(isDutyDue(duty, due)).toBe(true);
  expect(isDutyDue({ ...duty, doneMs: null }, 0)).toBe(true);
});
