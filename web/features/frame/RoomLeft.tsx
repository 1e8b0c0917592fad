'use client';

import { ROOM_MB } from '@/endpoints/house';
import { useHouse } from './useHouse';

/** The disk of the database in time before it is full, and that nothing can be stored once it is. */
export function RoomLeft() {
  const { data } = useHouse();
  const left = data?.roomMb;
  if (left == null || left >= ROOM_MB.scarce) return null;
  const words = `${Math.floor(left).toLocaleString('en-GB')} MB`;
  return left < ROOM_MB.least ? (
    <b className="headitem" role="alert">
      nothing can be stored: {words} left on disk
    </b>
  ) : (
    <span className="headitem">{words} left on disk</span>
  );
}
