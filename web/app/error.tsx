'use client';

import { Button } from '@mui/material';

export default function ErrorPage({ reset }: { error: Error; reset: () => void }) {
  return (
    <div className="floor" style={{ padding: 32, alignItems: 'flex-start' }}>
      <p style={{ fontSize: 20 }}>This page could not be shown.</p>
      <p>What was confirmed is kept. Try again; if it stays, the server&apos;s log tells more.</p>
      <Button onClick={reset}>Try again</Button>
    </div>
  );
}
