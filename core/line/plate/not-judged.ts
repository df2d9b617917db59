import type { Finding } from '../../job/index.js';
import { ampacityRefusal } from './cable.js';
import { finding, type PlateContext } from './context.js';
import { deratingRefusal } from './device-side.js';

/** Figures that somebody relies on, with the field that puts them out of reach. */
const figures: readonly {
  readonly what: string;
  readonly field: (c: PlateContext) => string;
  readonly why: (c: PlateContext) => string | undefined;
}[] = [
  {
    what: 'usableCurrent',
    field: ({ plate }) => (plate.place?.ambient ? 'place.ambient' : 'place.altitude'),
    why: deratingRefusal,
  },
  { what: 'cableAmpacity', field: () => 'cable.size', why: ampacityRefusal },
];

/** What cannot be judged, and why: silence would look like "fits". */
export const notJudged = (c: PlateContext): Finding[] =>
  figures.flatMap(({ what, field, why }) => {
    const because = why(c);
    return because === undefined
      ? []
      : [
          finding(
            'plate.notJudged',
            'warn',
            field(c),
            { what, because },
            'range of the table or formula',
          ),
        ];
  });
