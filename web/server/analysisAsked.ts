import type { Phase } from '@melto/core/press/runSettings';
import type { Scope } from '@melto/core/press/scopes';
import type { AnalysisAsked } from '@melto/services/press/analysis';

/** Which analysis of a run a query asks for. */
export const analysisAsked = ({
  scope = 'run',
  phase,
  at,
  aims,
}: {
  readonly scope?: Scope;
  readonly phase?: Phase;
  readonly at?: number;
  readonly aims?: number;
}): AnalysisAsked => ({
  ...{ scope, phase },
  ...(at === undefined ? {} : { atMs: at }),
  ...(aims === undefined ? {} : { aimSetId: aims }),
});
