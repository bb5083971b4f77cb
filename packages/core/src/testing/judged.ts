import type { Judged } from '../verdict/verdict';

/** A single cam on its target, well measured: nothing is wrong. */
export const JUDGED: Judged = {
  cam: 'single',
  delta: 0,
  expanded: 0.2,
  spread: 0,
  limit: 1,
  zeroProved: true,
  basis: { rule: null, count: 1, against: { valve: 'intake', centreline: 107 }, contradicted: false },
  chance: 0.5,
  named: [],
  worst: null,
  next: null,
  doubted: [],
  closingDue: false,
  first: [],
  oneSided: [],
  beside: [],
  converged: true,
  moved: null,
  ahead: 0,
};
