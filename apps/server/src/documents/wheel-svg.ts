import { USUAL_HEIGHT } from '@yosoku/core/cam/usual-height';
import { band, polar, stroke } from '@yosoku/core/crank/dial';
import { faceNumbers, runningSign } from '@yosoku/core/crank/ring-face';
import type { Report } from '@yosoku/core/report/report';
import { flanksAt } from '@yosoku/core/cam/lobe';

const RIM = 172;
const INNER = 132;
const LANES = { intake: [96, 108], exhaust: [78, 90] } as const;
const INK = '#1D1B16';
const COLOURS = { intake: '#0B6E60', exhaust: '#A8441D' } as const;
/** Where the lobes are shown to open and close, mm. */

/** The wheel of the engine as it was read, at TDC, with both valves' openings as measured: an SVG picture for paper. */
export function wheelSvg({ build, trials }: Report): string {
  const { ring } = build.wheel;
  const sign = runningSign(build.engine.rotation);
  const onFace = (at: number): number => -sign * at;
  const parts: string[] = [`<circle cx="0" cy="0" r="${RIM}" fill="none" stroke="${INK}" stroke-width="1.5"/>`];
  if (ring !== 'rim')
    for (let at = 0; at < 360; at += 2) {
      const inner = at % 10 === 0 ? RIM - 16 : RIM - 8;
      parts.push(
        `<path d="${stroke(inner, RIM, onFace(at))}" stroke="${INK}" stroke-width="${at % 10 === 0 ? 1.2 : 0.6}"/>`,
      );
    }
  for (const { at, text, strong } of faceNumbers(build.wheel)) {
    if (!strong) continue;
    const [x, y] = polar(INNER + 10, onFace(at));
    parts.push(
      `<text x="${x.toFixed(1)}" y="${(y + 5).toFixed(1)}" font-size="14" text-anchor="middle" fill="${INK}">${text}</text>`,
    );
  }
  const lobes = trials.at(-1)?.lobes;
  for (const valve of ['intake', 'exhaust'] as const) {
    const lobe = lobes?.[valve];
    const flanks = lobe && flanksAt(lobe, Math.min(USUAL_HEIGHT[build.units], lobe.peak / 2));
    if (!lobe || !flanks) continue;
    const [inner, outer] = LANES[valve];
    // A wheel shows half a cycle: an opening of more than a turn cannot be drawn on it, and none is.
    const sweep = flanks.closing - flanks.opening;
    parts.push(
      `<path d="${band(inner, outer, onFace(flanks.opening), -sign * sweep)}" fill="none" stroke="${COLOURS[valve]}" stroke-width="1.5"${valve === 'exhaust' ? ' stroke-dasharray="6 3"' : ''}/>`,
      `<path d="${stroke(inner - 6, outer + 6, onFace(lobe.nose))}" stroke="${COLOURS[valve]}" stroke-width="2"/>`,
    );
  }
  parts.push(`<path d="M0 ${-RIM - 2} L-7 ${-RIM - 18} L7 ${-RIM - 18} Z" fill="${INK}"/>`);
  const turns = build.engine.rotation === 'clockwise' ? 'turns clockwise' : 'turns counter-clockwise';
  parts.push(`<text x="0" y="0" font-size="14" text-anchor="middle" fill="${INK}">${turns}</text>`);
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="-180 -194 360 374" font-family="Barlow">${parts.join('')}</svg>`;
}
