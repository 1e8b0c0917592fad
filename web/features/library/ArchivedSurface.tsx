'use client';

import { Button } from '@mui/material';
import { Link } from '@/ui/Link';
import type { ArchivedCondition } from '@melto/services/house/conditionRecord';
import { ARCHIVE_CONDITION } from '@/endpoints/conditions';
import { send } from '@/ui/api';
import { May } from '@/ui/May';
import { formatDay } from '@/ui/format';
import { usePutAway } from './usePutAway';

/** Conditions that were archived, to be looked at or taken back. */
export function ArchivedSurface({ conditions }: { conditions: readonly ArchivedCondition[] }) {
  const put = usePutAway();
  return (
    <section className="surface">
      <div className="surface-head">
        <h1>Archived conditions</h1>
        <p className="quiet">
          {conditions.length === 0
            ? 'None. A condition is archived at its settings record.'
            : 'Off the floor, with all that they hold. Taken back, they are as they were.'}
        </p>
      </div>
      {conditions.length > 0 && (
        <table className="table">
          <thead>
            <tr>
              <th>Condition</th>
              <th>Archived</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {conditions.map(({ id, name, archivedMs }) => (
              <tr key={id}>
                <td>
                  <Link href={`/conditions/${id}`}>{name}</Link>
                </td>
                <td>{formatDay(archivedMs)}</td>
                <td className="num">
                  <May act={ARCHIVE_CONDITION}>
                    <Button
                      size="small"
                      aria-label={`Take back ${name}`}
                      onClick={() =>
                        void put(
                          (archived) => send(ARCHIVE_CONDITION, { params: { id }, body: { archived } }),
                          undefined,
                        )
                      }
                    >
                      Take back
                    </Button>
                  </May>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
