/** One source of a check's difference, as mean ΔE00 if it were alone. */
export interface BudgetPart {
  readonly source: 'instrument' | 'sheet' | 'drift' | 'model' | 'gamut' | 'rest';
  readonly size: number;
  /** Where the figure comes from, in words. */
  readonly from: string;
}

export interface ErrorBudget {
  readonly total: number;
  readonly parts: readonly BudgetPart[];
}

export type BudgetSources = Readonly<
  Partial<Record<Exclude<BudgetPart['source'], 'rest'>, Omit<BudgetPart, 'source'>>>
>;

const ORDER = ['instrument', 'sheet', 'drift', 'model', 'gamut'] as const;

/**
 * How much of the mean ΔE00 of a check comes from what: independent sources add as squares, what they do not explain is
 * the rest (curves, settings, all else). Sources that are larger than the total are cut to it.
 * @returns undefined where nothing is known.
 */
export function errorBudget(total: number, sources: BudgetSources): ErrorBudget | undefined {
  let left = total ** 2;
  const parts: BudgetPart[] = [];
  for (const source of ORDER) {
    const own = sources[source];
    if (own === undefined || !Number.isFinite(own.size)) continue;
    const size = Math.min(own.size, Math.sqrt(left));
    left = Math.max(0, left - size ** 2);
    parts.push({ source, size, from: own.from });
  }
  if (parts.length === 0) return undefined;
  parts.push({ source: 'rest', size: Math.sqrt(left), from: 'what the others leave' });
  return { total, parts };
}

/** Share of the squares, 0..1, that a part has. */
export function budgetShare(part: BudgetPart, { total }: ErrorBudget): number {
  return total > 0 ? (part.size / total) ** 2 : 0;
}
