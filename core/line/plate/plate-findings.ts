import { keepsLineFrequency, type Profile } from '../../catalogue/index.js';
import type { Finding, Job, Plate } from '../../job/index.js';
import { linkFor, motorCurrent, ratedPoints, polePairsOf } from '../../motor/index.js';
import { cableFindings } from './cable.js';
import { controlFindings } from './control-supplies.js';
import { baseOf, finding, plateContext, plateNumbers } from './context.js';
import { deviceFindings } from './device-side.js';
import { likelyTyping } from './likely-typing.js';
import { loadFindings } from './motor.js';
import { notJudged } from './not-judged.js';
import { supplySideFindings } from './supply-side.js';

/** What is wrong or impossible on the plates, each at the field where it can be put right. */
export function plateFindings(job: Job, profile?: Profile): Finding[] {
  const { plate } = job;
  const c = plateContext(job, profile);
  return [
    ...shareFindings(plate),
    ...speedFindings(plate),
    ...currentFindings(plate),
    ...linkFindings(plate, c.job.scheme.maxHz, !keepsLineFrequency(profile)),
    ...supplySideFindings(c),
    ...deviceFindings(c),
    ...cableFindings(c),
    ...loadFindings(c),
    ...controlFindings(c),
    ...notJudged(c),
  ];
}

function shareFindings({ motor }: Plate): Finding[] {
  const found: Finding[] = [];
  for (const [field, value] of [
    ['efficiency', motor.efficiency],
    ['powerFactor', motor.powerFactor],
  ] as const) {
    if (value === undefined || (value > 0 && value <= 1)) continue;
    const likely = value > 1 && value <= 100 ? value / 100 : 0;
    found.push(
      finding(
        `plate.${field}Impossible`,
        'stop',
        `motor.${field}`,
        { value, likely },
        'IEC 60034-1: a share of one',
      ),
    );
  }
  return found;
}

function speedFindings(plate: Plate): Finding[] {
  const { hz, rpm } = plateNumbers(plate);
  if (!hz || !rpm) return [];
  const pairs = polePairsOf(hz, rpm);
  const synchronous = (60 * hz) / (pairs ?? 1);
  const slip = (synchronous - rpm) / synchronous;
  if (pairs !== undefined && slip > 0 && slip <= 0.15) return [];
  const likely = likelyTyping(rpm, (x) => {
    const p = polePairsOf(hz, x) ?? 0;
    const s = 1 - (x * p) / (60 * hz);
    return p >= 1 && p <= 6 && s >= 0.005 && s <= 0.08;
  });
  const rule = slip <= 0 ? 'plate.speedAtOrAboveSynchronous' : 'plate.slipTooLarge';
  return [
    finding(
      rule,
      'stop',
      'motor.rpm',
      { rpm, synchronous, slipPct: slip * 100, likely: likely ?? 0 },
      'n_s = 60·f/p; an induction motor runs just below it',
    ),
  ];
}

function currentFindings(plate: Plate): Finding[] {
  const { powerKw, efficiency, powerFactor } = plateNumbers(plate);
  if (!powerKw || !efficiency || !powerFactor) return [];
  return ratedPoints(plate.motor).flatMap((point, at) => {
    if (!point.volts || !point.amps) return [];
    const reckoned = motorCurrent.run({
      powerKw,
      voltageV: point.volts,
      efficiency,
      powerFactor,
      phases: 3,
    }).currentA;
    const offPct = (100 * (point.amps - reckoned)) / reckoned;
    if (Math.abs(offPct) <= 15) return [];
    const field = at === 0 ? 'motor.lowA' : 'motor.highA';
    const other = ratedPoints(plate.motor)[1 - at]?.amps;
    const likely = likelyTyping(point.amps, (x) => Math.abs(x - reckoned) / reckoned <= 0.05) ?? 0;
    const hp = Math.abs(point.amps / reckoned - 0.7457) < 0.04;
    const swapped = other !== undefined && Math.abs(other - reckoned) / reckoned <= 0.15;
    return [
      finding(
        'plate.currentDisagrees',
        'warn',
        field,
        { amps: point.amps, reckoned, offPct, likely, hp, swapped },
        'I = P/(η·√3·U·cosφ)',
      ),
    ];
  });
}

/** Most by which a motor's voltage may be above the drive's: it keeps full flux to that share of its frequency. */
const SLOWER_BASE = 1.25;

/** A motor for a higher voltage than the drive gives keeps full flux up to a lower frequency: nothing is wrong with it. */
function slowerBase(plate: Plate): Finding | undefined {
  const { outputV, hz } = plateNumbers(plate);
  const volts = ratedPoints(plate.motor).flatMap((point) => point.volts ?? []);
  const near = volts.filter((v) => outputV && v > outputV && v <= SLOWER_BASE * outputV);
  if (!outputV || !hz || near.length === 0) return undefined;
  const untilHz = Math.floor((hz * outputV) / Math.min(...near));
  return finding(
    'plate.fluxEnds',
    'advise',
    'motor.lowV',
    { untilHz, outputV, volts: Math.min(...near), hz },
    'flux follows volts over hertz (IEC 60034-25)',
  );
}

function linkFindings(plate: Plate, maxHz: number | undefined, isDrive: boolean): Finding[] {
  const { motor } = plate;
  const { outputV } = plateNumbers(plate);
  const found: Finding[] = [];
  const [low, high] = ratedPoints(motor);
  if (low?.volts && high?.volts) {
    const ratio = high.volts / low.volts;
    const wanted = motor.connection === 'deltaStar' ? Math.sqrt(3) : 2;
    if (Math.abs(ratio / wanted - 1) > 0.05)
      found.push(
        finding(
          'plate.voltageRatio',
          'warn',
          'motor.highV',
          { ratio, wanted },
          'Δ/Y voltages differ by √3, parallel and series by 2',
        ),
      );
  }
  if (!outputV || !low?.volts) return found;
  const wanted = linkFor(motor, outputV);
  const slower = isDrive && !wanted ? slowerBase(plate) : undefined;
  if (slower) return [...found, slower];
  // Linked for a lower voltage on purpose: volts and hertz grow alike up to a faster base.
  if (isDrive && baseOf(plate, maxHz)?.faster) return found;
  if (!wanted)
    return [
      ...found,
      finding(
        'plate.noLinkSuits',
        'stop',
        'motor.lowV',
        { outputV },
        'NEMA MG 1 §12.44; IEC 60034-1 zone A',
      ),
    ];
  if (motor.link && motor.link !== 'none' && motor.link !== wanted.link) {
    const used = ratedPoints(motor).find((point) => point.link === motor.link);
    const share = used?.volts ? outputV / used.volts : 1;
    found.push(
      finding(
        'plate.linkWrong',
        'stop',
        'motor.link',
        {
          link: motor.link,
          wanted: wanted.link,
          outputV,
          voltsPct: share * 100,
          torquePct: share * share * 100,
        },
        'torque follows the square of the voltage',
      ),
    );
  }
  return found;
}

/** Fields the Plate stage needs before everything can be reckoned, and those still empty. */
export function plateMissing(plate: Plate): { needed: number; missing: string[] } {
  const { motor, supply, load, cable } = plate;
  const dual = motor.connection !== undefined && motor.connection !== 'single';
  const fields: Record<string, unknown> = {
    'supply.volts': supply.volts,
    'supply.hz': supply.hz,
    'motor.power': motor.power,
    'motor.connection': motor.connection,
    'motor.lowV': motor.lowV,
    'motor.lowA': motor.lowA,
    ...(dual ? { 'motor.highV': motor.highV, 'motor.highA': motor.highA } : {}),
    'motor.hz': motor.hz,
    'motor.rpm': motor.rpm,
    'motor.powerFactor': motor.powerFactor,
    'cable.length': cable.length,
    'cable.size': cable.size,
    'load.torquePct': load.torquePct,
  };
  const missing = Object.keys(fields).filter((key) => fields[key] === undefined);
  return { needed: Object.keys(fields).length, missing };
}
