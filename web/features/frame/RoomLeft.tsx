'use client';

import { useHouse } from './useHouse';

/** Free space under which nothing is stored, and under which it is said in time, MB. */
const [LEAST, SCARCE] = [300, 2000];

/** The disk of the database in time before it is full, and that nothing can be stored once it is. */
export function RoomLeft() {
  const { data } = useHouse();
  const left = data?.roomMb;
  if (left == null || left >= SCARCE) return null;
  const words = `${Math.floor(left).toLocaleString('en-GB')} MB`;
  return left < LEAST ? (
    <b className="headitem" role="alert">
      nothing can be stored: {words} left on disk
    </b>
  ) : (
    <span className="headitem">{words} left on disk</span>
  );
}
