import { keepsLineFrequency } from '../../catalogue/index.js';
import type { Finding } from '../../job/index.js';
import { areaOf } from '../conductors.js';
import { base, finding, type PlateContext } from './context.js';

/** Leakage above which a protective conductor is reinforced, mA AC (IEC 61800-5-1:2007 §4.3.5.5.2). */
export const REINFORCED_ABOVE_MA = 3.5;
/** Size from which one protective conductor serves for it, mm². */
const REINFORCED_MM2 = 10;

/** Leakage over the protective conductor of the feed, mA: of the device and of a filter ahead of it. */
export const leakageOf = ({ line, profile }: Pick<PlateContext, 'line' | 'profile'>): number =>
  (base(line.inputFilter?.leakage, 'current') ?? 0) * 1000 + (profile?.leakageMA ?? 0);

/** Whether the wiring as built reinforces it: one conductor of 10 mm², or two. */
function isReinforced({ job: { adopted } }: PlateContext): boolean {
  const own = Object.values(adopted?.wires ?? {}).filter(
    (w) =>
      w.class === 'pe' &&
      [w.from, w.to].some((at) => at.startsWith(`${adopted?.device ?? ''}:`)) &&
      w.function.startsWith('feed.'),
  );
  return own.length > 1 || own.some((w) => areaOf(w.size) >= REINFORCED_MM2);
}

/** A residual-current device must see the fault current that the device ahead of the motor can leave. */
function rcdTypeFindings({ n, profile }: PlateContext, type: string | undefined): Finding[] {
  if (!type) return [];
  const said = (severity: Finding['severity'], starter: boolean, source: string): Finding[] => [
    finding('rcd.type', severity, 'rcd.type', { type, phases: n.phases ?? 3, starter }, source),
  ];
  if (keepsLineFrequency(profile))
    return type === 'AC'
      ? said('warn', true, 'IEC 60755: pulsating direct residual current of phase control')
      : [];
  if (n.phases === 3 && type !== 'B')
    return said(
      'stop',
      false,
      'IEC 62423; IEC 61800-5-1: smooth DC residual current of a three-phase bridge',
    );
  return n.phases === 1 && (type === 'AC' || type === 'A')
    ? said('warn', false, 'IEC 62423: mixed frequencies behind a single-phase drive')
    : [];
}

/** What leaks to earth: type and rating of a residual-current device, and the protective conductor. */
export function leakageFindings(c: PlateContext): Finding[] {
  const { line } = c;
  const found: Finding[] = [];
  const leakMA = leakageOf(c);
  if (line.rcd) {
    const { type } = line.rcd;
    const ratedMA = (base(line.rcd.rated, 'current') ?? 0) * 1000;
    found.push(...rcdTypeFindings(c, type));
    if (leakMA && ratedMA && leakMA > 0.3 * ratedMA)
      found.push(
        finding(
          'rcd.leakage',
          'warn',
          'rcd.rated',
          { leakMA, ratedMA, sharePct: (100 * leakMA) / ratedMA },
          'IEC 60364-5-53 §531.3: at most 30 % of the rating',
        ),
      );
  }
  if (
    leakMA > REINFORCED_ABOVE_MA &&
    line.protection &&
    !line.protection.reinforcedPe &&
    !isReinforced(c)
  )
    found.push(
      finding(
        'supply.reinforcedPe',
        'advise',
        'protection.reinforcedPe',
        { leakMA },
        'IEC 61800-5-1 §4.3.5.5.2',
      ),
    );
  return found;
}

/** What of the device lies against earth on a supply without an earthed star point. */
function earthFindings(plate: PlateContext['plate'], profile: PlateContext['profile']): Finding[] {
  const found: Finding[] = [];
  const earthing = plate.supply.earthing;
  const unearthed = earthing === 'IT' || earthing === 'cornerEarthed';
  if (unearthed && profile && !profile.earthLink && (profile.leakageMA ?? 0) > 0)
    found.push(
      finding(
        'supply.filterToEarth',
        'warn',
        'supply.earthing',
        { earthing, leakMA: profile.leakageMA as number },
        'device profile; IEC 61800-3, filters on supplies without an earthed star point',
      ),
    );
  if (unearthed && profile?.earthLink && !plate.place?.earthLinkOut)
    found.push(
      finding(
        'supply.earthLink',
        'stop',
        'place.earthLinkOut',
        { earthing, link: profile.earthLink as string },
        'device profile; IEC 61800-5-1',
      ),
    );
  return found;
}

/** A capacitor at the output, and one ahead: of a drive it wants a reactor, of a soft starter a contactor of its own. */
function capacitorFindings(
  { capacitor, reactor }: PlateContext['line'],
  profile: PlateContext['profile'],
): Finding[] {
  if (!capacitor) return [];
  const starter = keepsLineFrequency(profile);
  if (capacitor.at === 'output') {
    const source = starter
      ? 'charging current of every firing'
      : 'charging current of every switching edge';
    return [finding('capacitor.output', 'stop', 'capacitor.at', { starter }, source)];
  }
  if (reactor && !starter) return [];
  const source = starter
    ? 'thyristors in phase control; the maker’s manual'
    : 'resonance with the bridge’s harmonics';
  return [finding('capacitor.supply', 'warn', 'capacitor.at', { starter }, source)];
}

/** Fast fuses are for type 2 coordination alone, and never the protection of the cable. */
function coordinationFindings({ line: { protection: p }, profile }: PlateContext): Finding[] {
  if (!p || !keepsLineFrequency(profile)) return [];
  const source = 'IEC 60947-4-2:2020 §8.2.5; the tested table of the maker';
  const at = 'protection.coordination';
  const said = (rule: string, severity: Finding['severity'], where = at): Finding =>
    finding(rule, severity, where, {}, source);
  if (p.fastFuses && !p.kind) return [said('protection.fastOnly', 'stop', 'protection.kind')];
  if (p.coordination === 'type2' && !p.fastFuses) return [said('protection.type2', 'warn')];
  return p.fastFuses && p.coordination !== 'type2'
    ? [said('protection.fastUnneeded', 'advise')]
    : [];
}

/** Capacitors, filters and contactors of the line, and what of the device lies against earth. */
export function blockFindings(c: PlateContext): Finding[] {
  const { line, plate, profile } = c;
  const found: Finding[] = [];
  found.push(...coordinationFindings(c));
  found.push(...earthFindings(plate, profile));
  found.push(...capacitorFindings(line, profile));
  if (line.inputFilter && !line.inputFilter.sidesChecked)
    found.push(
      finding(
        'filter.sides',
        'warn',
        'inputFilter.sidesChecked',
        {},
        'IEC 61800-3: line and load side, short earth',
      ),
    );
  const perHour = line.contactor?.perHour;
  if (
    perHour !== undefined &&
    profile?.supplyOperationsPerHour !== undefined &&
    perHour > profile.supplyOperationsPerHour
  )
    found.push(
      finding(
        'contactor.rate',
        'stop',
        'contactor.perHour',
        { perHour, most: profile.supplyOperationsPerHour },
        'device profile: the pre-charge resistor',
      ),
    );
  return found;
}
