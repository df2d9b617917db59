import { factorySettings, modelOf, type Profile } from '../catalogue/index.js';
import {
  circuitDiagram,
  circuitSvg,
  connectionDrawing,
  connectionSvg,
  isReadable,
  scaleOnSheet,
  type CircuitDiagram,
  type CircuitOptions,
  type CircuitWords,
  type Layouter,
} from '../drawings/index.js';
import { asBuilt } from '../installation/index.js';
import { hashOf, JOB_VERSION, type Envelope, type Evidence, type Job } from '../job/index.js';
import { keyingLines } from '../plan/index.js';
import {
  asBuiltTable,
  csv,
  handTable,
  type HandWords,
  keyingTable,
  linkTable,
  terminalTable,
  wireTable,
} from './tables.js';

/** The job file: job, the profile it is pinned to, evidence. */
export function envelopeOf(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[] = [],
  site?: Envelope['site'],
): Envelope {
  return {
    format: 'tactron-job',
    version: JOB_VERSION,
    job,
    profiles: { [job.profile.sha256]: profile as Record<string, unknown> },
    evidence: [...evidence],
    ...(site ? { site } : {}),
  };
}

/** Drawings that go on a sheet each, by the name of its file. */
interface Sheet {
  readonly file: string;
  readonly title: string;
}

/** What a sheet with a drawing is named and titled. */
const sheets = {
  circuit: { file: 'sheets/1-circuit.svg', title: 'Circuit diagram' },
  circuitPower: { file: 'sheets/1-circuit-power.svg', title: 'Circuit diagram, power' },
  circuitControl: { file: 'sheets/2-circuit-control.svg', title: 'Circuit diagram, control' },
  power: { file: 'sheets/3-connection-power.svg', title: 'Connections, power' },
  control: { file: 'sheets/4-connection-control.svg', title: 'Connections, control' },
} as const satisfies Record<string, Sheet>;

/**
 * The drawings of a job as it is built, by file name: `connection.svg` with devices and terminals, control above power;
 * `circuit.svg` with the current paths; and in `sheets` the same as they are printed, on as many sheets as they need to be
 * read. None without a plan.
 *
 * @param words what devices and terminals are there for
 */
export async function drawingFiles(
  job: Job,
  profile: Profile,
  words: CircuitWords,
  layouter: Layouter,
): Promise<Record<string, string>> {
  if (!job.adopted) return {};
  const panel = asBuilt(job, profile);
  const control = await connectionDrawing(panel, profile, 'control', layouter);
  const power = await connectionDrawing(panel, profile, 'power', layouter);
  const circuitOf = (part: CircuitOptions['part']): Promise<CircuitDiagram> =>
    circuitDiagram(job, profile, panel, { words, width: 'sheet', part }, layouter);
  const circuit = await circuitOf('all');
  const titled = ({ title }: Sheet): string => `${job.tag} ${title}`;
  const [powerPart, controlPart] = isReadable(circuit)
    ? [circuit, circuit]
    : [await circuitOf('power'), await circuitOf('control')];
  // Parts by themselves only where both are there, and larger so.
  const apart = [powerPart, controlPart].every(
    (d) => d.elements.length > 0 && scaleOnSheet(d) > scaleOnSheet(circuit),
  );
  const of = (sheet: Sheet, drawing: CircuitDiagram): Record<string, string> => ({
    [sheet.file]: circuitSvg(drawing, titled(sheet)),
  });
  return {
    'connection.svg': connectionSvg([control, power], `${job.tag} connections`),
    'circuit.svg': circuitSvg(circuit, `${job.tag} circuit diagram`),
    ...(apart
      ? { ...of(sheets.circuitPower, powerPart), ...of(sheets.circuitControl, controlPart) }
      : of(sheets.circuit, circuit)),
    [sheets.power.file]: connectionSvg([power], titled(sheets.power)),
    [sheets.control.file]: connectionSvg([control], titled(sheets.control)),
  };
}

/**
 * All open-format files of a job's record by file name.
 *
 * @param more files that were made elsewhere (drawings, the record to read), and words for the hand list
 */
export function recordFiles(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[] = [],
  more: { readonly beside?: Readonly<Record<string, string>>; readonly words?: HandWords } = {},
): Record<string, string> {
  const model = modelOf(profile, job.profile.model);
  const keyed = model ? keyingLines(job, profile, factorySettings(profile, model)) : [];
  const files: Record<string, string> = {
    'job.json': `${JSON.stringify(envelopeOf(job, profile, evidence), null, 2)}\n`,
    'hand-list.csv': csv(handTable(job, profile, evidence, more.words)),
    'wires.csv': csv(wireTable(job)),
    'terminals.csv': csv(terminalTable(job, profile)),
    'as-built.csv': csv(asBuiltTable(job)),
    'links.csv': csv(linkTable(job, profile)),
    'keying.csv': csv(keyingTable(profile, keyed)),
    ...more.beside,
  };
  files['manifest.json'] =
    `${JSON.stringify({ job: job.id, tag: job.tag, sha256: Object.fromEntries(Object.entries(files).map(([name, text]) => [name, hashOf(text)])) }, null, 2)}\n`;
  return files;
}
