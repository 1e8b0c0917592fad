import { budgetShare } from '@melto/core/conformity/errorBudget';
import type { ErrorBudget } from '@melto/core/conformity/errorBudget';

const TONES = ['#DADADA', '#BDBDBD', '#9B9B9B', '#6E6E6E', '#3A3A3A'];

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
