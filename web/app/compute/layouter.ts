import ElkApi, { type ElkNode } from 'elkjs/lib/elk-api.js';
import type { LayeredGraph } from '@tactron/core/drawings';

/** Where the layout package lies among the files of the application. */
const PACKAGE = '/layout/elk-worker.min.js';

let elk: { layout(graph: ElkNode): Promise<ElkNode> } | undefined;

/** Lays out a graph by the layout package, in a worker of its own that is started with the first drawing. */
export const runLayout = (graph: LayeredGraph): Promise<LayeredGraph> => {
  elk ??= new ElkApi({ workerFactory: () => new Worker(PACKAGE) });
  return elk.layout(graph as ElkNode) as Promise<LayeredGraph>;
};
