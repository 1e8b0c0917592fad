'use client';

import { Button, Menu, MenuItem } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { RunView } from '@melto/services/press/runView';
import {
  BAR_PDF,
  CHANGE_RUN_SETTINGS,
  CREATE_RUN,
  MARK_OK_SHEET,
  PULL_SHEET,
  SET_PHASE,
  TAKE_SHEET_FILE,
} from '@/endpoints/runs';
import { send } from '@/ui/api';
import { Link } from '@/ui/Link';
import { May, useMay } from '@/ui/May';
import { OkSheetDialog } from './OkSheetDialog';
import { ProductionDialog } from './ProductionDialog';
import { RunFeedDialog } from './RunFeedDialog';
import { RunSettingsDialog } from './RunSettingsDialog';
import { TakeSheetDialog } from './TakeSheetDialog';

type Open = 'nothing' | 'sheet' | 'ok' | 'production' | 'settings' | 'feed';

/** What the run is, and what can be done in it. */
export function RunActs({ run }: { run: RunView }) {
  const router = useRouter();
  const [open, setOpen] = useState<Open>('nothing');
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const close = (): void => setOpen('nothing');
  const choose = (next: Open) => (): void => {
    setAnchor(null);
    setOpen(next);
  };
  const may = { settings: useMay(CHANGE_RUN_SETTINGS), again: useMay(CREATE_RUN), phase: useMay(SET_PHASE) };
  const { id, jobNumber, title, condition, conditionId, side, customer, phase, strips } = run;
  const finished = phase === 'finished';
  const setPhase = async (next: 'finished' | 'production' | 'make-ready'): Promise<void> => {
    setAnchor(null);
    await send(SET_PHASE, { params: { id }, body: { phase: next } });
  };
  return (
    <header className="run-head">
      <h1>
        {jobNumber} {title}
      </h1>
      <p className="quiet">
        <Link href={`/conditions/${conditionId}/conformity`}>{condition}</Link>
        {[side, customer].filter((words) => words !== '').map((words) => `, ${words}`)}
        {finished && ', finished'}
      </p>
      {!finished && (
        <>
          <May act={run.simulated ? PULL_SHEET : TAKE_SHEET_FILE}>
            <Button onClick={choose('sheet')}>Take a sheet</Button>
          </May>
          <May act={MARK_OK_SHEET}>
            <Button disabled={strips.length === 0} onClick={choose('ok')}>
              OK sheet
            </Button>
          </May>
          {phase === 'make-ready' && (
            <May act={SET_PHASE}>
              <Button disabled={strips.length === 0} onClick={choose('production')}>
                Production
              </Button>
            </May>
          )}
        </>
      )}
      <Button component={Link} href={`/runs/${id}/analysis`}>
        Analysis
      </Button>
      <Button aria-haspopup="menu" onClick={(event) => setAnchor(event.currentTarget)}>
        More
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        <MenuItem
          component="a"
          href={BAR_PDF.path.replace('{id}', String(id))}
          onClick={() => setAnchor(null)}
        >
          Colour bar as PDF
        </MenuItem>
        {may.phase && <MenuItem onClick={choose('feed')}>Feed that reads it</MenuItem>}
        {may.settings && <MenuItem onClick={choose('settings')}>Settings of the run</MenuItem>}
        {may.again && (
          <MenuItem onClick={() => router.push(`/runs?from=${id}`)}>Start another from it</MenuItem>
        )}
        {may.phase &&
          (finished ? (
            <MenuItem
              onClick={() => void setPhase(run.productionFrom === null ? 'make-ready' : 'production')}
            >
              Take it up again
            </MenuItem>
          ) : (
            <MenuItem onClick={() => void setPhase('finished')}>Finish the run</MenuItem>
          ))}
      </Menu>
      {open === 'sheet' && <TakeSheetDialog run={run} onClose={close} />}
      {open === 'ok' && <OkSheetDialog run={run} onClose={close} />}
      {open === 'production' && <ProductionDialog run={run} onClose={close} />}
      {open === 'settings' && <RunSettingsDialog run={run} onClose={close} />}
      {open === 'feed' && <RunFeedDialog run={run} onClose={close} />}
    </header>
  );
}
