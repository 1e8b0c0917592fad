import { modeName } from '@melto/core/device/modeName';
import { densityOverPaper } from '@melto/core/gamut/gamutFigures';
import type { StockFacts } from '@melto/core/stock/stockFacts';
import { factsOf } from '@melto/store/devices';
import { listCatalogue } from '@melto/store/catalogue';
import type { CatalogueDataRow } from '@melto/store/catalogue';
import type { Context } from '../kernel/context.ts';
import { GIVEN_PROFILE } from '../ledger/kinds/givenProfileKind.ts';
import { PROFILE } from '../ledger/kinds/profileKind.ts';
import type { ProfileSummary } from '../ledger/kinds/profileKind.ts';
import { summaryOf } from '../ledger/resultKind.ts';

/** A condition with a profile in force, by what conditions are chosen by. */
export interface CatalogueRow {
  readonly conditionId: number;
  readonly device: string;
  readonly stock: string;
  readonly mode: string;
  readonly inkSet: string;
  /** Class of ISO 15397 of its stock, where it is known. */
  readonly brightener: StockFacts['brightener'] | null;
  readonly profile: {
    readonly key: string;
    readonly name: string;
    readonly madeMs: number;
    /** Mean ΔE00 of its fit; null of one from elsewhere. */
    readonly fit: number | null;
  };
  /** What prints; null of a profile that is from before it was worked out. */
  readonly gamut: {
    /** Cubic ΔE*ab. */
    readonly volume: number;
    /** Lab of paper. */
    readonly white: readonly number[];
    readonly darkest: number;
    /** Visual density of the darkest neutral above paper. */
    readonly density: number;
  } | null;
  /** The best conformity check: mean ΔE00 to its aims. */
  readonly best: { readonly mean: number; readonly madeMs: number; readonly resultId: number } | null;
}

const MOST = 2000;

/** Every condition with a profile in force, by device and stock. */
export async function catalogue({ database }: Context): Promise<CatalogueRow[]> {
  return (await listCatalogue(database, MOST)).map(catalogueRow);
}

function catalogueRow(row: CatalogueDataRow): CatalogueRow {
  const { name, gamut, fit } = profileOf(row);
  return {
    ...{ conditionId: row.conditionId, device: row.device, stock: row.stock, inkSet: row.inkSet },
    mode: modeName(row),
    brightener: factsOf<StockFacts>(row.stockFacts).brightener ?? null,
    profile: { key: `result-${row.id}`, name, madeMs: row.madeMs, fit },
    gamut:
      gamut === undefined
        ? null
        : {
            ...{ volume: gamut.volume, white: gamut.white, darkest: gamut.black[0] },
            density: densityOverPaper(gamut.black, gamut.white),
          },
    best:
      row.bestMean === null || row.bestMs === null || row.bestId === null
        ? null
        : { mean: row.bestMean, madeMs: row.bestMs, resultId: row.bestId },
  };
}

function profileOf(row: CatalogueDataRow): Pick<ProfileSummary, 'name' | 'gamut'> & { fit: number | null } {
  const result = { ...row, link: 'profile' as const, verdict: null };
  if (row.shape === GIVEN_PROFILE.shape) return { ...summaryOf(GIVEN_PROFILE, result), fit: null };
  const summary = summaryOf(PROFILE, result);
  return { ...summary, fit: summary.mean };
}
