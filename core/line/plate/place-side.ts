import type { Finding } from '../../job/index.js';
import { enclosureHeat } from '../place.js';
import { base, facts, finding, tryRun, type PlateContext, type PlateFact } from './context.js';

const heatArgs = ({ model, plate }: PlateContext) => {
  const place = plate.place ?? {};
  const surface = base(place.surface, 'area');
  return {
    lossW: model?.lossW ? [model.lossW, (base(place.otherLoss, 'power') ?? 0) * 1000] : undefined,
    areaM2: surface,
    ambientC: base(place.ambient, 'temperature'),
    maxC: base(place.inside, 'temperature') ?? 40,
  };
};

/** Heat of the enclosure and the air it needs. */
export const placeFacts = (c: PlateContext): PlateFact[] =>
  facts('place', enclosureHeat, heatArgs(c), {
    totalW: 'heatLoss',
    insideC: 'insideTemperature',
    airM3PerH: 'airNeeded',
  });

/** What is wrong with the place. */
export function placeFindings(c: PlateContext): Finding[] {
  const { place } = c.plate;
  const found: Finding[] = [];
  if ((place?.zone === 'dust' || place?.zone === 'gas') && !place.certificate)
    found.push(
      finding(
        'place.zone',
        'stop',
        'place.certificate',
        { zone: place.zone },
        'IEC 60079-14; NEC 500 to 506',
      ),
    );
  const heat = tryRun(enclosureHeat, heatArgs(c))?.result;
  if (heat && heat['ok'] === false)
    found.push(
      finding(
        'place.hot',
        'warn',
        'place.surface',
        {
          insideC: heat['insideC'] as number,
          maxC: base(place?.inside, 'temperature') ?? 40,
          air: heat['airM3PerH'] as number,
        },
        'IEC TR 60890',
      ),
    );
  return found;
}
