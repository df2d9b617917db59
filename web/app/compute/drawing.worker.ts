import { expose } from 'comlink';
import type { Profile } from '@tactron/core/catalogue';
import {
  circuitDiagram,
  connectionDrawing,
  layouterOver,
  type CircuitDiagram,
  type CircuitOptions,
  type ConnectionDrawing,
  type LayeredGraph,
} from '@tactron/core/drawings';
import { asBuilt, asPlanned } from '@tactron/core/installation';
import type { Job } from '@tactron/core/job';
import { circuitWordsOf, saidDrawings } from '@tactron/core/said';

/** Control and power by devices and terminals. */
export interface Connections {
  readonly control: ConnectionDrawing;
  readonly power: ConnectionDrawing;
}

/** Lays out one graph: given by the page, which has the layout package in a worker of its own. */
type RunLayout = (graph: LayeredGraph) => Promise<LayeredGraph>;

let run: RunLayout | undefined;
const layouter = layouterOver((graph) => {
  if (!run) throw new Error('nothing lays out drawings');
  return run(graph);
});

const worker = {
  /** Is given what lays out graphs, before anything is drawn. */
  layOutBy(by: RunLayout): void {
    run = by;
  },

  /** The plan by devices and terminals; nothing without a plan. */
  async connections(job: Job, profile: Profile): Promise<Connections | null> {
    if (!job.adopted) return null;
    const control = await connectionDrawing(job.adopted, profile, 'control', layouter);
    const power = await connectionDrawing(job.adopted, profile, 'power', layouter);
    return { control, power };
  },

  /**
   * Current paths, as planned or as built.
   *
   * @param width width that is aimed at, in units of the drawing
   * @param part what commands, the power, or both
   */
  async circuit(
    job: Job,
    profile: Profile,
    which: 'planned' | 'built',
    width: number,
    part: CircuitOptions['part'],
  ): Promise<CircuitDiagram | null> {
    if (!job.adopted) return null;
    const panel = which === 'built' ? asBuilt(job, profile) : asPlanned(job, profile);
    const words = circuitWordsOf(job, profile);
    return circuitDiagram(job, profile, panel, { words, width, part }, layouter);
  },

  /** The drawings as SVG files, as built. */
  files: (job: Job, profile: Profile): Promise<Record<string, string>> =>
    saidDrawings(job, profile, layouter),
};

export type DrawingWorker = typeof worker;

expose(worker);
