import type { Report } from '@yosoku/core/report/report';
import { decimal } from '@yosoku/core/units/decimal';
import { Balance } from '@/pictures/balance';

type Trial = Report['trials'][number];

interface CamBalanceProps {
  readonly trial: Trial;
  readonly cam: Trial['cams'][number];
  readonly width: number;
}

/** Where one cam sits against its target, with the mark of every view that says so. */
export function CamBalance({ trial, cam: { cam, bank, limit, verdict }, width }: CamBalanceProps) {
  return (
    <Balance
      delta={verdict.delta ?? 0}
      expanded={verdict.expanded}
      limit={limit}
      marks={trial.views.flatMap((view) =>
        view.delta === null || view.bank !== bank || (cam !== 'single' && view.valve !== cam)
          ? []
          : [{ delta: view.delta, valve: view.valve }],
      )}
      width={Math.min(width - 24, 640)}
      description={`Beam scale. ${verdict.headline} Limit ${decimal(limit, 1)}° either way.`}
    />
  );
}
