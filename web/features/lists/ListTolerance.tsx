import { Button, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { ColourListDetail } from '@melto/services/lists/colourLists';
import { CHANGE_COLOUR_LIST } from '@/endpoints/lists';
import { send } from '@/ui/api';
import { useMay } from '@/ui/May';
import { numberOf } from '@/ui/numberOf';
import { useSending } from '@/ui/useSending';

/** What the list allows its colours: runs on the press judge their spot inks by it. */
export function ListTolerance({ list: { id, name, note, tolerance } }: { list: ColourListDetail }) {
  const router = useRouter();
  const may = useMay(CHANGE_COLOUR_LIST);
  const [typed, setTyped] = useState(tolerance === null ? '' : String(tolerance));
  const { sending, problem, run } = useSending();
  const value = typed.trim() === '' ? null : numberOf(typed);
  const wrong = value !== null && !(value > 0 && value <= 100);
  if (!may) return tolerance === null ? null : <p className="quiet">Tolerance {tolerance.toFixed(1)} ΔE00</p>;
  const keep = (): Promise<void> =>
    run(async () => {
      await send(CHANGE_COLOUR_LIST, { params: { id }, body: { name, note, tolerance: value } });
      router.refresh();
    });
  return (
    <form
      className="row"
      style={{ alignItems: 'flex-start' }}
      onSubmit={(event) => {
        event.preventDefault();
        if (!wrong && value !== tolerance) void keep();
      }}
    >
      <TextField
        label="Tolerance, ΔE00"
        value={typed}
        error={wrong || problem !== undefined}
        helperText={problem ?? (wrong ? 'over 0, or empty' : 'of spot inks in runs; empty: that of the run')}
        onChange={(event) => setTyped(event.target.value)}
        sx={{ width: 290 }}
      />
      <Button type="submit" disabled={wrong || sending || value === tolerance}>
        Keep it
      </Button>
    </form>
  );
}
