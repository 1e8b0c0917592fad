import { Button } from '@mui/material';

/** Rows of a long table that are shown at first, and that each press adds. */
export const ROWS_AT_ONCE = 100;

/** Adds the next rows of a long table; nothing where all are shown. */
export function MoreRows({
  shown,
  total,
  onShow,
}: {
  shown: number;
  total: number;
  onShow: (most: number) => void;
}) {
  if (total <= shown) return null;
  return (
    <Button size="small" onClick={() => onShow(shown + ROWS_AT_ONCE)}>
      {Math.min(ROWS_AT_ONCE, total - shown)} more of {total - shown}
    </Button>
  );
}
