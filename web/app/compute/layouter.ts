import type { ElkNode } from 'elkjs/lib/elk-api.js';
import type { LayeredGraph } from '@tactron/core/drawings';

/** Where the layout package lies among the files of the application. */
const PACKAGE = '/layout/elk-worker.min.js';

type Elk = { layout(graph: LayeredGraph): Promise<LayeredGraph> };
let elk: Promise<Elk> | undefined;

async function started(): Promise<Elk> {
  const { default: ElkApi } = await import('elkjs/lib/elk-api.js');
  const api = new ElkApi({ workerFactory: () => new Worker(PACKAGE) });
  return { layout: (graph) => api.layout(graph as ElkNode) as Promise<LayeredGraph> };
}

/**
 * Lays out a graph by the layout package, in a worker of its own that is started with the first drawing. It is a child of the
 * page and not of another worker: only so the service worker gives it its script without the network.
 */
export async function runLayout(graph: LayeredGraph): Promise<LayeredGraph> {
  elk ??= started();
  return (await elk).layout(graph);
}
