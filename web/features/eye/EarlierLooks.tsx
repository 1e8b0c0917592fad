'use client';

import { useQuery } from '@tanstack/react-query';
import { EYES_CHECKS } from '@/endpoints/eye';
import { useLights } from '@/features/light/useLights';
import { ask } from '@/ui/api';
import { formatMoment } from '@/ui/format';
import { pointedSentences } from '@melto/core/eye/eyeSentences';

/** Looks that were kept, the newest first. */
export function EarlierLooks({ conditionId }: { conditionId: number }) {
  const lights = useLights();
  const { data = [] } = useQuery({
    queryKey: ['eyes checks', conditionId],
    queryFn: () => ask(EYES_CHECKS, { params: { id: conditionId } }),
  });
  if (data.length === 0) return null;
  return (
    <div className="panel">
      <header>
        <h2>Earlier looks</h2>
      </header>
      <table className="table tight">
        <thead>
          <tr>
            <th>When</th>
            <th>By</th>
            <th>Colours</th>
            <th>Light</th>
            <th>Profile</th>
            <th className="num">Same</th>
            <th>Points to</th>
          </tr>
        </thead>
        <tbody>
          {data.map(({ id, madeMs, author, listName, light, version, notes, points }) => {
            const same = notes.filter(({ words }) => words.length === 0).length;
            return (
              <tr key={id}>
                <td>{formatMoment(madeMs)}</td>
                <td>{author}</td>
                <td>{listName}</td>
                <td>{lights.find(({ key }) => key === light)?.name ?? light}</td>
                <td>v{version}</td>
                <td className="num">
                  {same} of {notes.length}
                </td>
                <td>{pointedSentences(points, same === notes.length)[0]}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
