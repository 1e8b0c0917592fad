import { budgetShare } from '@melto/core/conformity/errorBudget';
import type { ErrorBudget } from '@melto/core/conformity/errorBudget';

const TONES = ['#E2E2E2', '#C6C6C6', '#A6A6A6', '#838383', '#5E5E5E', '#3A3A3A'];

/** Where the mean difference comes from: shares of the squares, from what the data allow to know. */
export function BudgetBar({ budget }: { budget: ErrorBudget }) {
  return (
    <div className="panel">
      <header>
        <h2>Where the mean comes from</h2>
        <span className="quiet">{budget.total.toFixed(2)} ΔE00; bars by share of squares</span>
      </header>
      <div className="budget" aria-hidden>
        {budget.parts.map((part, i) => (
          <i
            key={part.source}
            style={{ flexGrow: Math.max(0.01, budgetShare(part, budget)), background: TONES[i] }}
          />
        ))}
      </div>
      <dl className="budget-parts">
        {budget.parts.map((part, i) => (
          <div key={part.source} title={part.from}>
            <dt>
              <i style={{ background: TONES[i] }} aria-hidden /> {part.source}
            </dt>
            <dd>
              <b>{part.size.toFixed(2)}</b> <span className="quiet small">{part.from}</span>
            </dd>
          </div>
        ))}
      </dl>
    </div>
  );
}
