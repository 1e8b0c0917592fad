'use client';

import { useEffect, useState } from 'react';
import { MOST_DUTY_DAYS } from '@melto/core/device/calibrationDuty';
import type { CalibrationDuty } from '@melto/core/device/calibrationDuty';

const KEY = 'melto.screen-duty';
const NEVER: CalibrationDuty = { words: 'Screen calibrated', days: 30, doneMs: null };

/** What a browser kept of its screen; what it cannot have written is as if nothing were kept. */
export function screenDutyFrom(kept: string | null): CalibrationDuty {
  try {
    const { days, doneMs } = JSON.parse(kept ?? '{}') as Partial<CalibrationDuty>;
    return {
      ...NEVER,
      days: isDays(days) ? days : NEVER.days,
      doneMs: typeof doneMs === 'number' && Number.isFinite(doneMs) ? doneMs : null,
    };
  } catch {
    return NEVER;
  }
}

const isDays = (days: unknown): days is number =>
  typeof days === 'number' && Number.isInteger(days) && days >= 1 && days <= MOST_DUTY_DAYS;

/** The calibration of the screen that this browser draws on: it is kept in the browser, since it is of no other screen. */
export function useScreenDuty() {
  const [duty, setDuty] = useState(NEVER);
  useEffect(() => setDuty(screenDutyFrom(window.localStorage.getItem(KEY))), []);
  const change = (part: Partial<CalibrationDuty>): void => {
    if (part.days !== undefined && !isDays(part.days)) return;
    const next = { ...duty, ...part };
    window.localStorage.setItem(KEY, JSON.stringify(next));
    setDuty(next);
  };
  return { duty, change };
}

const PROFILE_KEY = 'melto.screen-profile';

/**
 * The key of the screen's own profile, kept in the browser; empty where it is to be shown by one and none is chosen,
 * undefined where the browser is left to show colours.
 * @param isKept whether the profile of a key is there the next time.
 */
export function useScreenProfile(isKept: (key: string) => boolean) {
  const [key, setKey] = useState<string>();
  useEffect(() => setKey(window.localStorage.getItem(PROFILE_KEY) ?? undefined), []);
  const choose = (next: string | undefined): void => {
    if (next === undefined) window.localStorage.removeItem(PROFILE_KEY);
    else if (isKept(next)) window.localStorage.setItem(PROFILE_KEY, next);
    setKey(next);
  };
  return [key, choose] as const;
}
