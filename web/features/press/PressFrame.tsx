'use client';

import { BORROW } from '@/endpoints/conditions';
import { Button } from '@mui/material';
import { Link } from '@/ui/Link';
import { useRouter } from 'next/navigation';
import { useSnackbar } from 'notistack';
import { useState } from 'react';
import type { ReactNode } from 'react';
import type { ChartState } from '@melto/services/charts/chartStates';
import { ChartTable } from '@/features/charts/ChartTable';
import type { PressLink, PressView } from '@melto/services/calibration/pressView';
import type { VersionView } from '@melto/services/ledger/versions';
import { Versions } from '@/features/profile/Versions';
import { problemWords, send } from '@/ui/api';
import { BorrowDialog } from './BorrowDialog';
import { PrintSheet } from './PrintSheet';
import type { SheetDefaults } from './PrintSheet';

/** What all calibration surfaces share: head, versions, why stale, printing, borrowing. */
export function PressFrame<L extends PressLink>({
  view,
  title,
  sentence,
  about,
  print,
  actions,
  children,
}: {
  view: PressView<L>;
  title: string;
  sentence: ReactNode;
  /** Words at the end of the row of versions. */
  about?: ReactNode;
  print: SheetDefaults;
  actions?: ReactNode;
  children: ReactNode;
}) {
  const [printing, setPrinting] = useState<true | ChartState>();
  const [borrowing, setBorrowing] = useState(false);
  const path = `/conditions/${view.condition.id}/${view.link}`;
  const lent = view.shown?.borrowedFrom ?? null;
  // Greys printed through no curves say nothing of the balance.
  const needsCurves = view.link === 'balance' && view.inForce === null;
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>{title}</h1>
        <p>{sentence}</p>
        {view.lenders.length > 0 && view.link !== 'evenness' && (
          <Button onClick={() => setBorrowing(true)}>Borrow</Button>
        )}
        {needsCurves ? (
          <Button variant="contained" component={Link} href={`/conditions/${view.condition.id}/curves`}>
            Make the curves first
          </Button>
        ) : (
          <Button
            variant={view.readings.length === 0 ? 'contained' : 'outlined'}
            onClick={() => setPrinting(true)}
          >
            Print a sheet
          </Button>
        )}
        {actions}
      </div>
      {view.versions.length > 0 && (
        <Versions versions={view.versions} shown={view.shown ?? undefined} nowMs={view.nowMs} path={path}>
          {about}
        </Versions>
      )}
      {lent !== null && (
        <p className="notice">
          <b>Borrowed</b> from <Link href={`/conditions/${lent.conditionId}/${view.link}`}>{lent.name}</Link>.
          A sheet of this stock tells whether it fits.
        </p>
      )}
      {view.shown !== null && view.shown.stale !== null && (
        <StaleNotice view={view} stale={view.shown.stale} />
      )}
      {children}
      {view.charts.length > 0 && (
        <div className="panel">
          <header>
            <h2>Charts</h2>
          </header>
          <ChartTable charts={view.charts} nowMs={view.nowMs} pixels={['tiff']} onPrint={setPrinting} />
        </div>
      )}
      {printing !== undefined && (
        <PrintSheet
          view={view}
          defaults={print}
          made={printing === true ? undefined : printing.id}
          onClose={() => setPrinting(undefined)}
        />
      )}
      {borrowing && <BorrowDialog view={view} onClose={() => setBorrowing(false)} />}
    </section>
  );
}

function StaleNotice({
  view,
  stale,
}: {
  view: PressView<PressLink>;
  stale: NonNullable<VersionView['stale']>;
}) {
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const { act } = stale;
  const borrow = async (lender: number): Promise<void> => {
    try {
      await send(BORROW, { params: { id: view.condition.id }, body: { conditionId: lender } });
      router.refresh();
    } catch (error) {
      enqueueSnackbar(problemWords(error), { variant: 'error' });
    }
  };
  return (
    <div className="notice row">
      <span>
        <b>Stale.</b> {stale.words}
      </span>
      {act !== null &&
        ('borrow' in act ? (
          <Button size="small" onClick={() => void borrow(act.borrow)}>
            Take over the newer ones
          </Button>
        ) : (
          act.href !== `/conditions/${view.condition.id}/${view.link}` && (
            <Button size="small" component={Link} href={act.href}>
              {act.words}
            </Button>
          )
        ))}
    </div>
  );
}
