import type { Services } from '../kernel/context.ts';

/** A complete reading that could become a house standard. */
export interface ReadingToAim {
  readonly id: number;
  readonly code: string;
  readonly title: string;
  readonly condition: string;
  readonly finishedMs: number;
}

const MOST = 60;

/** The latest complete readings of charts that ask for CMYK values. */
export function readingsToAim(services: Services): Promise<ReadingToAim[]> {
  return services.database.rows(
    `SELECT r.id, p.code, c.title, CONCAT(d.name, ' / ', s.name) AS \`condition\`, r.finished_ms AS finishedMs
     FROM reading r JOIN print p ON p.id = r.print_id JOIN chart c ON c.id = p.chart_id
     JOIN printing_condition pc ON pc.id = p.condition_id JOIN device d ON d.id = pc.device_id JOIN stock s ON s.id = pc.stock_id
     WHERE r.finished_ms IS NOT NULL AND r.withdrawn_ms IS NULL AND (c.purpose = 'wedge' OR d.space = 'cmyk')
     ORDER BY r.id DESC LIMIT ?`,
    [MOST],
  );
}
